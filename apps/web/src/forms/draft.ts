import type { FormShape } from '@haycart/api';
import { editForm, type FormDefinition, type FormEdit } from '@haycart/core';
import { call } from '../api/client';
import { createDraft } from '../state/saved-draft';

/** The draft in the form editor. A save names the revision that it was made on, so that nobody's work is overwritten unseen. */
export const useFormDraft = createDraft<FormDefinition, FormShape>((id, form, { revision }) =>
  call<FormShape>('PUT', `/forms/${id}/draft`, { form, revision }),
);

/** Changes the draft; each change can be undone by itself. */
export function edit(change: FormEdit): void {
  useFormDraft.getState().change((form) => editForm(form, change));
}
