/** What is being edited: an item by its name, or a part of the form as a whole. */
export type Chosen = { item: string } | { part: FormPart } | null;

/** What a form has beside its items. */
export type FormPart = 'head' | 'after' | 'page' | 'languages';
