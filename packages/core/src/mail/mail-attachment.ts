/** One paragraph of a document, or an answer with what was asked. */
export interface DocumentRow {
  label?: string;
  text: string;
}

/** What a mail that goes out names of what goes with it. */
export type MailAttachment =
  | { document: { title: string; rows: DocumentRow[] }; name: string }
  /** All files of a submission, by its id. */
  | { uploads: string }
  /** A file of the workspace, by its key. */
  | { file: string };
