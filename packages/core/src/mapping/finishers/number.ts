import { plainDecimal } from '../../destination/money';
import { warning } from '../../problem';
import { z } from '../../schema-library';
import { shorten } from '../../text';
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
    const found = text.slice(0, 1_000).match(/[-−]?\d+(?:[.,' \u00a0\u202f]\d+)*/g) ?? [];
    if (text.trim() === '') return { text: '' };
    const plain = found.length === 1 ? plainNumber(found[0], decimals) : null;
    return plain === null
      ? { text: '', problem: warning('not-a-number', `“${shorten(text.trim(), 40)}” is not one number.`) }
      : { text: plain };
  },
});

function plainNumber(found: string, decimals: string): string | null {
  const sign = /^[-−]/.test(found) ? '-' : '';
  const digits = found.replace(/^[-−]/, '').replace(/[' \u00a0\u202f]/g, '');
  if (decimals === 'after a comma') return withDecimals(sign, digits, ',', '.');
  if (decimals === 'after a point') return withDecimals(sign, digits, '.', ',');
  const plain = plainDecimal(digits);
  return plain === null ? null : sign + plain;
}

function withDecimals(sign: string, digits: string, mark: string, group: string): string | null {
  const [whole = '', fraction, ...more] = digits.replaceAll(group, '').split(mark);
  if (more.length) return null;
  return sign + whole + (fraction === undefined ? '' : `.${fraction}`);
}
