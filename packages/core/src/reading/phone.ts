import metadata from 'libphonenumber-js/min/metadata';
import {
  getCountries,
  getCountryCallingCode,
  isSupportedCountry,
  parsePhoneNumberFromString,
} from 'libphonenumber-js/min';
import { warning, type Problem } from '../problem';
import { shorten } from '../text';

type ReadPhone = { ok: true; phone: string } | { ok: false; problem?: Problem };

/** Reading a number is slow, and one run reads the same text several times: the latest answers are kept. */
const MOST_KEPT = 20_000;
/** Longer texts are no numbers, and would fill the memory. */
const LONGEST_KEPT = 40;
const kept = new Map<string, ReadPhone>();

/**
 * A phone number as ITU-T E.164 (+447700900318). A number without a country code is read as one of the given country
 * (ISO 3166-1 alpha-2).
 */
export function normalPhone(text: string, country: string): ReadPhone {
  if (text.length > LONGEST_KEPT) return readPhone(text, country);
  const key = `${country} ${text}`;
  const known = kept.get(key);
  if (known) return known;
  if (kept.size >= MOST_KEPT) kept.clear();
  const read = readPhone(text, country);
  kept.set(key, read);
  return read;
}

function readPhone(text: string, country: string): ReadPhone {
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

/** What divides numbers that stand in one field; a number may hold a slash or a comma itself. */
const DIVIDERS = /[/;,|\n]|\s(?:or|and|oder|und|ou|et|o|y|e|of|en|eller)\s/iu;
const MOST_IN_FIELD = 10;
const LONGEST_FIELD = 250;

/** The numbers (E.164) that stand in one field, such as `020 7946 0018 / 07700 900018`, where there are several. */
export function severalPhones(text: string, country: string): string[] {
  if (text.length > LONGEST_FIELD) return [];
  const parts = text.split(DIVIDERS).slice(0, MOST_IN_FIELD);
  if (parts.length < 2) return [];
  const read = parts.map((part) => normalPhone(part, country));
  return [...new Set(read.flatMap((one) => (one.ok ? [one.phone] : [])))];
}

/** An E.164 number as people read it: `+44 7700 900318`. What is no such number stays as it is. */
export function showPhone(phone: string): string {
  return parsePhoneNumberFromString(phone)?.formatInternational() ?? phone;
}

/**
 * The countries (ISO 3166-1 alpha-2) whose numbers can be read, with their calling codes (ITU-T E.164), such as `31`.
 * Where several share a code, `first` is the one that most of its numbers belong to.
 */
export function phoneCountries(): { country: string; code: string; first: boolean }[] {
  return getCountries().map((country) => {
    const code = getCountryCallingCode(country);
    return { country, code, first: codeHolders[code]?.[0] === country };
  });
}

const { country_calling_codes: codeHolders } = metadata as { country_calling_codes: Record<string, string[]> };

/**
 * A number and the country chosen beside it as one text that means the same everywhere: `+31 6 12345678`. What cannot
 * be read stays as it was typed, behind the country's code, so that it is not taken for a number of another country.
 */
export function phoneFrom(country: string, typed: string): string {
  const text = typed.trim();
  const read = normalPhone(text, country);
  if (read.ok) return showPhone(read.phone);
  if (text === '' || text.startsWith('+') || !isSupportedCountry(country)) return text;
  return `+${getCountryCallingCode(country)} ${text}`;
}

/** Whether phone numbers of a country (ISO 3166-1 alpha-2) can be read. */
export function hasPhoneNumbers(country: string): boolean {
  return isSupportedCountry(country);
}
