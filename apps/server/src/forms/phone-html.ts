import { phoneCountries, type FormWords, type Question } from '@haycart/core';
import { attributes, markup, type Html } from './html';

interface Country {
  country: string;
  code: string;
  first: boolean;
  label: string;
}

const CODES = phoneCountries();
/** The countries in the order of each language; forms have few languages. */
const inLanguage = new Map<string, Country[]>();

function countriesIn(language: string): Country[] {
  const known = inLanguage.get(language);
  if (known) return known;
  const names = new Intl.DisplayNames([language, 'en'], { type: 'region' });
  const countries = CODES.map((one) => ({ ...one, label: names.of(one.country) ?? one.country })).sort((a, b) =>
    a.label.localeCompare(b.label, language),
  );
  inLanguage.set(language, countries);
  return countries;
}

/**
 * A phone number with its country beside it, so that `06 12345678` is read as the visitor means it. A number with a code
 * of its own says its country itself.
 */
export function phoneHtml(
  { name, country }: Question,
  text: string,
  input: Parameters<typeof attributes>[0],
  words: FormWords,
): Html {
  const chosen = chosenCountry(text, country, countriesIn(words.language));
  const options = countriesIn(words.language).map(
    (one) =>
      markup`<option${attributes({ value: one.country, 'data-code': one.code, 'data-first': one.first, selected: one === chosen })}>${one.label} +${one.code}</option>`,
  );
  const both = { name: `${name}[]` };
  return markup`<span class="dialled"><select${attributes({ ...both, autocomplete: 'country', 'aria-label': words.country })}><option value="">${words.country}</option>${options}</select><input type="tel"${attributes({ autocomplete: 'tel', inputmode: 'tel', ...input, ...both, value: text })}></span>`;
}

function chosenCountry(text: string, country: string | undefined, countries: readonly Country[]): Country | undefined {
  const typed = /^\+[\d\s]+/.exec(text)?.[0].slice(1).replace(/\s/g, '');
  const own = countries.find((one) => one.country === country);
  if (!typed || (own && typed.startsWith(own.code))) return own;
  const fitting = countries.filter(({ code }) => typed.startsWith(code));
  return fitting.find(({ first }) => first) ?? fitting[0];
}
