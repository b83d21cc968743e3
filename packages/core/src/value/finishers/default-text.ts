import { z } from '../../schema-library';
import { defineFinisher } from './finisher';

export const defaultText = defineFinisher({
  name: 'default',
  label: 'if blank',
  description: 'Stands in where nothing came in.',
  parameters: z.strictObject({ text: z.string().max(1_000).default('').meta({ title: 'text' }) }),
  example: { before: ' ', after: 'not said', with: { text: 'not said' } },
  finish: (text, { text: otherwise }) => ({ text: text.trim() === '' ? otherwise : text }),
});
