import { error } from '../../problem';
import { z } from '../../schema-library';
import { shorten } from '../../text';
import { defineFinisher, type Finished } from './finisher';

/** What happens to a value that the table does not have. */
const OTHERWISE = ['hold for a person', 'keep as it is', 'leave blank', 'use the option', 'add as option'] as const;

export const translate = defineFinisher({
  name: 'translate',
  label: 'translate',
  description:
    'Puts what a table says in the place of each value; of a list, item by item. Capitals and white space around do not count. A value that the table does not have is held for a person, kept, left blank, put into one option, or made a new option.',
  parameters: z.strictObject({
    table: z
      .record(z.string().max(200), z.string().max(200))
      .refine((table) => Object.keys(table).length <= 5_000, 'has at most 5,000 lines')
      .default({})
      .meta({ title: 'table' }),
    otherwise: z.enum(OTHERWISE).default('hold for a person').meta({ title: 'a value that is not in it' }),
    option: z.string().max(200).default('').meta({ title: 'the option' }),
  }),
  example: { before: 'Moss garden', after: 'moss', with: { table: { 'moss garden': 'moss' } } },
  finish(text, { table, otherwise, option }) {
    const known = foldedTable(table);
    const finished = text
      .split('\n')
      .map((line) => line.trim())
      .filter((line) => line !== '')
      .map((line): Finished =>
        known.has(folded(line)) ? { text: known.get(folded(line))! } : unknown(line, otherwise, option),
      );
    return {
      text: [...new Set(finished.map((one) => one.text))].filter((line) => line !== '').join('\n'),
      problem: finished.find(({ problem }) => problem)?.problem,
      hold: finished.find(({ hold }) => hold)?.hold,
      newOptions: finished.flatMap(({ newOptions = [] }) => newOptions),
    };
  },
});

function unknown(line: string, otherwise: (typeof OTHERWISE)[number], option: string): Finished {
  switch (otherwise) {
    case 'hold for a person': {
      const text = `“${shorten(line, 60)}” is not in the translation table. Add it there, and run this again.`;
      return { text: '', problem: error('untranslated', text), hold: { code: 'untranslated', text, value: line } };
    }
    case 'keep as it is':
      return { text: line };
    case 'leave blank':
      return { text: '' };
    case 'use the option':
      return { text: option };
    case 'add as option':
      return { text: line, newOptions: [line] };
  }
}

/** Tables are asked for with every submission: the latest are kept folded. */
const kept = new WeakMap<Record<string, string>, Map<string, string>>();

function foldedTable(table: Record<string, string>): Map<string, string> {
  const known = kept.get(table);
  if (known) return known;
  const map = new Map(Object.entries(table).map(([from, to]) => [folded(from), to]));
  kept.set(table, map);
  return map;
}

function folded(text: string): string {
  return text.trim().replace(/\s+/g, ' ').toLowerCase();
}
