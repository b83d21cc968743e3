import { describe, expect, test } from '@jest/globals';
import { FORM_LANGUAGES, formWords, withLimit, type FormWords } from './form-words';

const english = formWords('en');
const marks = (text: string) => [...text.matchAll(/\{\w+\}/g)].map(([mark]) => mark).sort();

describe.each(FORM_LANGUAGES)('a form in %s', (language) => {
  const words = formWords(language);

  test('says everything that it says in English, with the same places for limits', () => {
    for (const [name, text] of Object.entries(english)) {
      const own = words[name as keyof FormWords];
      expect([name, own.trim() === '', marks(own)]).toEqual([name, false, marks(text)]);
    }
  });

  test('is the same for every country that speaks it', () => expect(formWords(`${language}-ZZ`)).toBe(words));
});

test('a language without words of its own speaks English', () => expect(formWords('cy')).toBe(english));
test('a limit stands where the words want it', () =>
  expect(withLimit('Please give {n} or more.', '2027-01-01')).toBe('Please give 2027-01-01 or more.'));
