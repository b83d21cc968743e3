import { isSupportedCountry, parsePhoneNumberFromString } from 'libphonenumber-js/min';
import { warning, type Problem } from '../problem';
import { shorten } from '../text';

/**
 * A phone number as ITU-T E.164 (+447700900318). A number without a country code is read as one of the given country
 * (ISO 3166-1 alpha-2).
 */
export function normalPhone(
  text: string,
  country: string,
): { ok: true; phone: string } | { ok: false; problem?: Problem } {
  if (text.trim() === '') return { ok: false };
  const number = parsePhoneNumberFromString(text.slice(0, 250), isSupportedCountry(country) ? country : undefined);
  if (number?.isPossible()) return { ok: true, phone: number.number };
  return {
    ok: false,
    problem: warning(
      'not-a-phone',
      `“${shorten(text.trim(), 40)}” is not a phone number that can be dialled from ${country}.`,
    ),
  };
}

/** Whether phone numbers of a country (ISO 3166-1 alpha-2) can be read. */
export function hasPhoneNumbers(country: string): boolean {
  return isSupportedCountry(country);
}
