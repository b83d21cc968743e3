import { z } from '../../schema-library';
import { defineFinisher } from './finisher';

export const joinList = defineFinisher({
  name: 'join-list',
  label: 'join a list',
  description: 'Writes the items of a list in one line, with something between them.',
  parameters: z.strictObject({ with: z.string().max(20).default(', ').meta({ title: 'between' }) }),
  example: { before: 'moss\nfern', after: 'moss, fern' },
  finish: (text, { with: between }) => ({
    text: text
      .split('\n')
      .filter((line) => line.trim() !== '')
      .join(between),
  }),
});
