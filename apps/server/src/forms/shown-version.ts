import { createHash } from 'node:crypto';
import { answeredVersion } from '@haycart/core';
import type { PublicForm } from './public-forms.service';

/**
 * The version of a form that a visitor sees. While two share the visitors, chance chooses, and the same for one visitor all
 * day: by a hash of what their request shows anyway, which is not kept.
 */
export function versionFor(form: PublicForm, visitor: string, now: Date): PublicForm {
  const { trial } = form;
  if (!trial) return form;
  const day = now.toISOString().slice(0, 10);
  const hash = createHash('sha256').update(`${form.id} ${form.version} ${day} ${visitor}`).digest();
  return hash.readUInt32BE() / 2 ** 32 < trial.share ? form : ofTrial(form);
}

/** The version that a page tells to be: the earlier one of a trial, or the published one. */
export function versionTold(form: PublicForm, told: unknown): PublicForm {
  return form.trial && answeredVersion(told, form.version) === form.trial.version ? ofTrial(form) : form;
}

function ofTrial(form: PublicForm): PublicForm {
  return { ...form, form: form.trial!.form, version: form.trial!.version };
}
