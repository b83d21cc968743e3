import { minorDigits, readMoney } from '../../reading/money';
import { warning } from '../../problem';
import { z } from '../../schema-library';
import { shorten } from '../../text';
import { defineFinisher } from './finisher';

/** `48k` and `1.2m`, as people write large amounts. */
const SHORT = /^(.*\d)\s*(k|m|thousand|million|tsd|mio)\.?\s*([A-Z]{3}|[£€$])?$/i;
const TIMES: Record<string, number> = { k: 1e3, thousand: 1e3, tsd: 1e3, m: 1e6, million: 1e6, mio: 1e6 };

export const money = defineFinisher({
  name: 'money',
  label: 'money',
  description:
    'Writes an amount with its currency (GBP 48000.00). Without a symbol or code it is in the given currency, or else in that of the workspace.',
  parameters: z.strictObject({
    currency: z
      .string()
      .regex(/^[A-Z]{3}$/, 'is a currency such as GBP')
      .optional()
      .meta({ title: 'currency' }),
  }),
  example: { before: '€ 48k', after: 'EUR 48000.00' },
  finish(text, { currency }, { defaultCurrency }) {
    const given = text.trim().slice(0, 100);
    if (given === '') return { text: '' };
    const short = SHORT.exec(given);
    const read = readMoney(short ? `${short[1]} ${short[3] ?? ''}` : given, currency ?? defaultCurrency);
    const minor = read && read.amount * (short ? TIMES[short[2]!.toLowerCase()]! : 1);
    if (!read || !Number.isSafeInteger(Math.round(minor!)))
      return { text: '', problem: warning('not-an-amount', `“${shorten(given, 40)}” is no amount of money.`) };
    const digits = minorDigits(read.currency);
    return { text: `${read.currency} ${(Math.round(minor!) / 10 ** digits).toFixed(digits)}` };
  },
});
