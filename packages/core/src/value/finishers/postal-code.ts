import { postcodeValidator, postcodeValidatorExistsForCountry } from 'postcode-validator';
import { z } from '../../schema-library';
import { warning } from '../../problem';
import { shorten } from '../../text';
import { countryNamed } from '../../reading/country-name';
import { defineFinisher } from './finisher';

/** How the letters and digits of a postal code are grouped; the others stand together. */
const GROUPED: Record<string, (code: string) => string> = {
  GB: (code) => `${code.slice(0, -3)} ${code.slice(-3)}`,
  NL: (code) => `${code.slice(0, 4)} ${code.slice(4)}`,
  CA: (code) => `${code.slice(0, 3)} ${code.slice(3)}`,
  IE: (code) => `${code.slice(0, 3)} ${code.slice(3)}`,
  SE: (code) => `${code.slice(0, 3)} ${code.slice(3)}`,
  GR: (code) => `${code.slice(0, 3)} ${code.slice(3)}`,
  CZ: (code) => `${code.slice(0, 3)} ${code.slice(3)}`,
  SK: (code) => `${code.slice(0, 3)} ${code.slice(3)}`,
  PL: (code) => `${code.slice(0, 2)}-${code.slice(2)}`,
  PT: (code) => `${code.slice(0, 4)}-${code.slice(4)}`,
  JP: (code) => `${code.slice(0, 3)}-${code.slice(3)}`,
  US: (code) => (code.length > 5 ? `${code.slice(0, 5)}-${code.slice(5)}` : code),
};

export const postalCode = defineFinisher({
  name: 'postal-code',
  label: 'postal code',
  description:
    'Writes a postal code as its country does (SW1A 1AA, 1234 AB). One that the country cannot have is kept as it came, with a note.',
  parameters: z.strictObject({
    country: z
      .string()
      .regex(/^[A-Z]{2}$/, 'is a country such as GB')
      .optional()
      .meta({ title: 'country' }),
    countryFrom: z.string().max(500).optional().meta({ title: 'country from the answer', answer: true }),
  }),
  example: { before: 'sw1a1aa', after: 'SW1A 1AA', with: { country: 'GB' } },
  finish(text, { country, countryFrom }, { defaultCountry, answer }) {
    const given = text.slice(0, 200).trim();
    const tight = given.toUpperCase().replace(/[^\p{L}\p{Nd}]/gu, '');
    const from = (countryFrom === undefined ? null : countryNamed(answer(countryFrom))) ?? country ?? defaultCountry;
    if (tight === '') return { text: given };
    const code = GROUPED[from]?.(tight) ?? tight;
    if (!postcodeValidatorExistsForCountry(from) || postcodeValidator(code, from)) return { text: code };
    const problem = warning('not-a-postal-code', `“${shorten(given, 20)}” is no postal code of ${from}.`);
    return { text: text.trim(), problem };
  },
});
