import { z } from '../../schema-library';
import { hasPhoneNumbers, normalPhone } from '../../identity/phone';
import { countryNamed } from '../reading/country-name';
import { defineFinisher, eachLine } from './finisher';

export const phone = defineFinisher({
  name: 'phone',
  label: 'phone',
  description:
    'Writes a phone number as ITU-T E.164 (+447700900318). A number without a country code is read as one of the country that another answer names, or else of the given one. What is no number becomes blank.',
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
    const named = countryFrom === undefined ? null : countryNamed(answer(countryFrom));
    return eachLine(text, (line) => {
      const read = normalPhone(line, named ?? country ?? defaultCountry);
      return read.ok ? { text: read.phone } : { text: '', problem: read.problem };
    });
  },
});
