import type { Destination, MailAttach } from '@haycart/core';
import { sized } from '../../components/sent-file';

/** What goes with a mail. */
export function AttachChoice({
  attach = {},
  change,
  files = [],
  makesDocument,
}: {
  attach: MailAttach | undefined;
  change: (attach: MailAttach | undefined) => void;
  files: Destination['files'];
  /** Whether a step before the mail makes a document. */
  makesDocument: boolean;
}) {
  const put = (next: MailAttach) => change(next.documents || next.uploads || next.files?.length ? next : undefined);
  const box = (label: string, checked: boolean, set: (on: boolean) => void) => (
    <label key={label} className="flex items-center gap-1.5">
      <input type="checkbox" checked={checked} onChange={({ target }) => set(target.checked)} />
      <span className="min-w-0 [overflow-wrap:anywhere]">{label}</span>
    </label>
  );
  const { documents, uploads, files: chosen = [] } = attach;
  const only = (rest: MailAttach, on: boolean, what: 'documents' | 'uploads') => {
    const { [what]: _, ...others } = rest;
    put(on ? { ...others, [what]: true } : others);
  };
  return (
    <>
      <span className="text-muted">Attached</span>
      <div className="flex flex-wrap gap-x-4 gap-y-1">
        {(makesDocument || documents) && box('the document', documents ?? false, (on) => only(attach, on, 'documents'))}
        {box('what the visitor sent', uploads ?? false, (on) => only(attach, on, 'uploads'))}
        {files.map(({ key, name, size }) =>
          box(`${name}, ${sized(size)}`, chosen.includes(key), (on) => {
            const { files: _, ...others } = attach;
            const next = on ? [...chosen, key] : chosen.filter((one) => one !== key);
            put(next.length ? { ...others, files: next } : others);
          }),
        )}
      </div>
    </>
  );
}
