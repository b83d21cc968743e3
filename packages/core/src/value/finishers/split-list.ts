import { z } from '../../schema-library';
import { defineFinisher } from './finisher';

export const splitList = defineFinisher({
  name: 'split-list',
  label: 'split into a list',
  description: 'Makes a list of a text, split at a mark; blank items are left out.',
  parameters: z.strictObject({ at: z.string().min(1).max(20).default(',').meta({ title: 'at' }) }),
  example: { before: 'moss; fern;', after: 'moss\nfern', with: { at: ';' } },
  finish: (text, { at }) => ({
    text: text
      .split('\n')
      .flatMap((line) => line.split(at))
      .map((item) => item.trim())
      .filter(Boolean)
      .join('\n'),
  }),
});
