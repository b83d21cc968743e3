import { OPENED, questionsOf, type JsonObject, type Visit } from '@haycart/core';
import { z } from 'zod';
import type { Seen } from './form-counts.service';
import type { PublicForm } from './public-forms.service';

const LONGEST_VISIT_SECONDS = 7_200;

const seenShape = z.object({
  did: z.enum(['start', 'stop']),
  item: z.string().max(60).optional(),
  /** The query of the address that the form was opened with. */
  from: z.string().max(4_000).optional(),
});

/** Reads what a page tells of its visitor; `null` for anything that no page of ours would tell. */
export function readSeen(told: unknown, form: PublicForm) {
  const read = seenShape.safeParse(typeof told === 'string' ? parsed(told) : told);
  if (!read.success) return null;
  const { did, item = '', from = '' } = read.data;
  if (did === 'stop' && !questionsOf(form.form).some(({ name }) => name === item)) return null;
  return {
    did,
    item: did === 'stop' ? item : '',
    from,
  };
}

/** What is counted when answers were taken, and how long the visitor had the page open. */
export function sentBy(payload: JsonObject | null | undefined, visit: Visit): Seen {
  const seconds = (Date.now() - Number(payload?.[OPENED])) / 1_000;
  const isKnown = seconds >= 0 && seconds <= LONGEST_VISIT_SECONDS;
  return { did: 'send', seconds: isKnown ? Math.round(seconds) : 0, visit };
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
