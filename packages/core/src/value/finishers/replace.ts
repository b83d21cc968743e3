import { z } from '../../schema-library';
import { defineFinisher } from './finisher';

export const replace = defineFinisher({
  name: 'replace',
  label: 'replace',
  description: 'Puts one text in the place of another, wherever it is found; capitals do not count.',
  parameters: z.strictObject({
    find: z.string().min(1).max(500).meta({ title: 'find' }),
    put: z.string().max(500).default('').meta({ title: 'put' }),
  }),
  example: { before: 'Ref: 17', after: '17', with: { find: 'ref: ' } },
  finish(text, { find, put }) {
    const literal = find.replace(/[\\^$.*+?()[\]{}|/-]/g, '\\$&');
    return { text: text.replace(new RegExp(literal, 'giu'), () => put) };
  },
});
