import { z } from '../../schema-library';
import { defineFinisher } from './finisher';

export const pickItem = defineFinisher({
  name: 'pick-item',
  label: 'one of a list',
  description: 'Takes the first, the last or the n-th item of a list; blank where there is none.',
  parameters: z.strictObject({
    which: z.enum(['first', 'last', 'n-th']).default('first').meta({ title: 'which' }),
    n: z.number().int().min(1).max(10_000).default(1).meta({ title: 'n' }),
  }),
  example: { before: 'moss\nfern\nivy', after: 'fern', with: { which: 'n-th', n: 2 } },
  finish(text, { which, n }) {
    const items = text.split('\n').filter((line) => line.trim() !== '');
    return { text: (which === 'last' ? items.at(-1) : items[which === 'first' ? 0 : n - 1]) ?? '' };
  },
});
