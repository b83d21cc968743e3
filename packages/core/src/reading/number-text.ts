import { plainDecimal } from './money';

const NUMBER = /[-−]?\d+(?:[.,' \u00a0\u202f]\d+)*/g;

/** Which mark stands before the decimals of a number; where it is not told, the number itself has to show it. */
export type DecimalMark = ',' | '.' | undefined;

/** The one number in a text, as a plain decimal such as `-12500.5`; `null` where there is none or several. */
export function numberText(text: string, decimals?: DecimalMark): string | null {
  const found = text.slice(0, 1_000).match(NUMBER) ?? [];
  if (found.length !== 1) return null;
  const sign = /^[-−]/.test(found[0]) ? '-' : '';
  const digits = found[0].replace(/^[-−]/, '').replace(/[' \u00a0\u202f]/g, '');
  const plain = decimals === undefined ? plainDecimal(digits) : markedDecimal(digits, decimals);
  return plain === null ? null : sign + plain;
}

/** The one number in a text; `null` where there is none or several. */
export function oneNumberIn(text: string): number | null {
  const plain = numberText(text);
  return plain === null ? null : Number(plain);
}

function markedDecimal(digits: string, mark: ',' | '.'): string | null {
  const [whole = '', fraction, ...more] = digits.replaceAll(mark === ',' ? '.' : ',', '').split(mark);
  if (more.length) return null;
  return fraction === undefined ? whole : `${whole}.${fraction}`;
}
