import { z } from '../../schema-library';
import { defineFinisher } from './finisher';

/** A letter at the beginning or after white space, with that and the punctuation before it. */
const WORD_AFTER_SPACE = /([.!?]\s+|(?<!\s)\s+|^)(\p{L})/gu;

export const letterCase = defineFinisher({
  name: 'letter-case',
  label: 'capitals',
  description:
    'Writes everything in capitals or in small letters, or begins each sentence or each word with a capital.',
  parameters: z.strictObject({
    to: z.enum(['capitals', 'small letters', 'sentences', 'words']).default('small letters').meta({ title: 'write' }),
  }),
  example: { before: 'NEW glasshouse. SOON', after: 'New glasshouse. Soon', with: { to: 'sentences' } },
  finish(text, { to }) {
    if (to === 'capitals') return { text: text.toUpperCase() };
    const small = text.toLowerCase();
    if (to === 'small letters') return { text: small };
    if (to === 'words')
      return {
        text: small.replace(/(^|[\s(-])(\p{L})/gu, (_, mark: string, letter: string) => mark + letter.toUpperCase()),
      };
    return {
      text: small.replace(WORD_AFTER_SPACE, (whole: string, mark: string, letter: string, at: number) =>
        at === 0 || /^[.!?]|\n\s/.test(mark) ? mark + letter.toUpperCase() : whole,
      ),
    };
  },
});
