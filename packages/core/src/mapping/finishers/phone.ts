import { z } from '../../schema-library';
import { hasPhoneNumbers, normalPhone } from '../../identity/phone';
import { defineFinisher } from './finisher';

export const phone = defineFinisher({
  name: 'phone',
  label: 'phone',
  description:
    'Writes a phone number as ITU-T E.164 (+447700900318). A number without a country code is read as one of the given country. What is no number becomes blank.',
  parameters: z.strictObject({
    country: z.string().refine(hasPhoneNumbers, 'is no ISO 3166-1 country with phone numbers').optional(),
  }),
  example: { before: '07700 900 318', after: '+447700900318', with: { country: 'GB' } },
  finish(text, { country }, setting) {
    const result = normalPhone(text, country ?? setting.defaultCountry);
    return result.ok ? { text: result.phone } : { text: '', problem: result.problem };
  },
});
