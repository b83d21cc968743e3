import { questionsOf } from '@haycart/core';
import { z } from 'zod';
import type { PublicForm } from './public-forms.service';

const LONGEST_VISIT_SECONDS = 7_200;

const seenShape = z.object({
  did: z.enum(['start', 'stop', 'send']),
  item: z.string().max(60).optional(),
  seconds: z.number().min(0).optional(),
  /** The query of the address that the form was opened with. */
  from: z.string().max(4_000).optional(),
});

/** Reads what a page tells of its visitor; `null` for anything that no page of ours would tell. */
export function readSeen(told: unknown, form: PublicForm) {
  const read = seenShape.safeParse(typeof told === 'string' ? parsed(told) : told);
  if (!read.success) return null;
  const { did, item = '', seconds = 0, from = '' } = read.data;
  if (did === 'stop' && !questionsOf(form.form).some(({ name }) => name === item)) return null;
  return {
    did,
    item: did === 'stop' ? item : '',
    seconds: did === 'send' ? Math.min(Math.round(seconds), LONGEST_VISIT_SECONDS) : 0,
    from,
  };
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
