import { warning } from '../../problem';
import { z } from '../../schema-library';
import { shorten } from '../../text';
import { numberText, type DecimalMark } from '../../reading/number-text';
import { defineFinisher } from './finisher';

export const number = defineFinisher({
  name: 'number',
  label: 'number',
  description:
    'Writes a number plainly (12500.5), whatever groups its digits; words around it are left out. Text with no number or several becomes blank.',
  parameters: z.strictObject({
    decimals: z
      .enum(['as they show', 'after a comma', 'after a point'])
      .default('as they show')
      .meta({ title: 'decimals' }),
  }),
  example: { before: 'about 12.500,50 m', after: '12500.50' },
  finish(text, { decimals }) {
    if (text.trim() === '') return { text: '' };
    const plain = numberText(text, MARKS[decimals]);
    return plain === null
      ? { text: '', problem: warning('not-a-number', `“${shorten(text.trim(), 40)}” is not one number.`) }
      : { text: plain };
  },
});

const MARKS: Record<string, DecimalMark> = { 'after a comma': ',', 'after a point': '.' };
