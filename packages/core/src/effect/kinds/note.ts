import { z } from '../../schema-library';
import { recordWord } from '../../destination/destination';
import type { FollowUp } from '../../definition/route-definition';
import { condition, name, value } from '../../definition/shapes';
import type { Value } from '../../value/value';
import { defineEffect } from '../effect';
import { oneLine } from '../one-line';

interface NoteFollowUp extends FollowUp {
  do: 'note';
  on: string;
  title?: Value;
  body: Value;
}

/** Writes a note on the record, such as the whole message of the visitor. */
export const note = defineEffect<NoteFollowUp>({
  do: 'note',
  label: 'Note',
  description: 'Writes a note on the record, such as the whole message of the visitor.',
  shape: z.strictObject({
    do: z.literal('note'),
    on: name,
    title: value.optional(),
    body: value,
    when: condition.optional(),
  }) as unknown as z.ZodType<NoteFollowUp>,
  example: {
    settings: { do: 'note', on: 'person', body: { parts: [{ text: 'Came by the new form.' }] } },
    words: 'a note is written on the contact',
  },
  withValues: ({ title, body, ...settings }, change) => ({
    ...settings,
    ...(title ? { title: change(title, ['title']) } : {}),
    body: change(body, ['body']),
  }),
  check: ({ body }) =>
    body.parts.length ? [] : [{ code: 'blank-text', text: 'Say what the note says.', way: ['body'] }],
  describe({ on }, { route, destination }) {
    const record = route.writes.find(({ as }) => as === on)?.record;
    return `a note is written on the ${record ? recordWord(destination, record) : on}`;
  },
  plan({ title, body }, { record, destination, workOut }) {
    if (!record) return { words: 'Note' };
    const [called, said] = [title && workOut(title), workOut(body)];
    const problems = [...(called?.problems ?? []), ...said.problems];
    const line = oneLine(called?.text ?? '');
    const on = `on the ${recordWord(destination, record.kind)}`;
    // A title alone is no note.
    if (!said.text.trim()) return { words: `No note ${on}: it would say nothing`, problems };
    return {
      words: line ? `Note “${line}” ${on}` : `Note ${on}`,
      problems,
      made: { make: 'note', title: line, text: said.text },
    };
  },
});
