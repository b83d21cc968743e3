import { z } from '../../schema-library';
import { hasPhoneNumbers, normalPhone, severalPhones } from '../../reading/phone';
import { warning } from '../../problem';
import { listInWords, shorten } from '../../text';
import { countryNamed } from '../../reading/country-name';
import { defineFinisher, eachLine } from './finisher';

/** ISO 3166-1 leaves it to users; no number is dialled from there. */
const NOWHERE = 'ZZ';

function unknownCountry(number: string, told: string) {
  return warning(
    'not-a-country',
    `“${shorten(told, 40)}” names no country, so that “${shorten(number.trim(), 40)}” cannot be read.`,
  );
}

function severalNumbers(first: string, others: readonly string[]) {
  return warning('several-phones', `Several numbers stand here. ${first} was taken, and not ${listInWords(others)}.`);
}

export const phone = defineFinisher({
  name: 'phone',
  label: 'phone',
  description:
    'Writes a phone number as ITU-T E.164 (+447700900318). A number without a country code is read as one of the country that another answer names, or else of the given one; where that answer names no country, it is not guessed at. Of several numbers the first is taken. What is no number becomes blank.',
  parameters: z.strictObject({
    country: z
      .string()
      .refine(hasPhoneNumbers, 'is no ISO 3166-1 country with phone numbers')
      .optional()
      .meta({ title: 'country' }),
    countryFrom: z.string().max(500).optional().meta({ title: 'country from the answer', answer: true }),
  }),
  example: {
    before: '06 12345678',
    after: '+31612345678',
    with: { country: 'GB', countryFrom: 'land' },
    answers: { land: 'Nederland' },
  },
  finish(text, { country, countryFrom }, { defaultCountry, answer }) {
    const told = countryFrom === undefined ? '' : answer(countryFrom).trim();
    const named = countryNamed(told);
    return eachLine(text, (line) => {
      // A number with its country code needs no country; any other would be another number in another country.
      const from = told && !named ? NOWHERE : (named ?? country ?? defaultCountry);
      const read = normalPhone(line, from);
      const [first, ...others] = read.ok ? [] : severalPhones(line, from);
      if (first !== undefined)
        return { text: first, ...(others.length ? { problem: severalNumbers(first, others) } : {}) };
      if (!read.ok && told && !named && line.trim() !== '') return { text: '', problem: unknownCountry(line, told) };
      return read.ok ? { text: read.phone } : { text: '', problem: read.problem };
    });
  },
});
