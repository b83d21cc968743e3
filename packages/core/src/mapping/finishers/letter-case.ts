import { z } from '../../schema-library';
import { defineFinisher } from './finisher';

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
    const begins = to === 'words' ? /(^|[\s(-])(\p{L})/gu : /(^\s*|[.!?\n]\s+)(\p{L})/gu;
    return { text: small.replace(begins, (_, mark: string, letter: string) => mark + letter.toUpperCase()) };
  },
});
