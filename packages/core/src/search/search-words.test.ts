import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { JsonObject } from '../json';
import { LIMITS } from '../limits';
import { searchTerms, submissionWords } from './search-words';

const ID = '0193f2a4-77aa-7bcd-8123-456789abcdef';

/** Whether a submission is found by what somebody types: as the index does it. */
function finds(payload: JsonObject, typed: string, id = ID): boolean {
  const words = submissionWords(id, payload);
  return searchTerms(typed).some((all) =>
    all.every(({ word, begins }) => words.some((one) => (begins ? one.startsWith(word) : one === word))),
  );
}

const ENQUIRY = {
  name: 'Łukasz O’Brien-Müller',
  email: 'Lukasz.Obrien@quillfern.example',
  phone: '+44 7700 900123',
  company: 'Frühbeet & Söhne GmbH',
  message: 'We would like forty bays of glass, please.',
  people: [{ name: '王小明' }, { name: 'Σοφία Παπαδοπούλου' }],
};

describe('what a submission is found by', () => {
  test.each([
    ['a name without its marks', 'lukasz obrien'],
    ['the words in another order', 'muller Łukasz'],
    ['a word that is not finished', 'quil'],
    ['an address', 'lukasz.obrien@quillfern.example'],
    ['an address with capitals and brackets', '<Lukasz.OBRIEN@quillfern.example>'],
    ['the beginning of an address', 'lukasz.obrien@quill'],
    ['a domain', '@quillfern.example'],
    ['a number with its country', '+447700900123'],
    ['the number as people say it', '07700 900 123'],
    ['a company', 'fruhbeet sohne'],
    ['a word of a message', 'glass'],
    ['a part of a name without spaces', '小明'],
    ['a name in other letters', 'sofia'],
    ['its id', ID],
    ['the beginning of its id', '0193f2a4'],
    ['its id without lines', ID.replaceAll('-', '')],
  ])('%s', (_what, typed) => expect(finds(ENQUIRY, typed)).toBe(true));

  test.each([
    ['nothing typed', '  '],
    ['a word that is not there beside one that is', 'lukasz smith'],
    ['another person at the same domain', 'ada@quillfern.example'],
    ['the end of a word', 'fern'],
    ['another number', '07700 900 124'],
    ['another id', '0193f2a5'],
    ['one letter', 'l'],
  ])('not by %s', (_what, typed) => expect(finds(ENQUIRY, typed)).toBe(false));

  test('an unreadable one is found by its id alone', () => {
    expect(submissionWords(ID, null)).toEqual([`=${ID.replaceAll('-', '')}`]);
  });

  test('every word of an answer finds it, whatever the letters', () => {
    fc.assert(
      fc.property(fc.array(fc.string({ unit: 'grapheme', maxLength: 20 }), { maxLength: 5 }), (answers) => {
        const payload = Object.fromEntries(answers.map((answer, index) => [`field ${index}`, answer]));
        for (const answer of answers) if (searchTerms(answer)[0]?.length) expect(finds(payload, answer)).toBe(true);
      }),
    );
  });

  test('a flood of words is known by as many as the limit says', () => {
    const message = Array.from({ length: LIMITS.searchedWords.most + 50 }, (_, index) => `w${index}`).join(' ');
    expect(submissionWords(ID, { message })).toHaveLength(LIMITS.searchedWords.most);
    expect(finds({ message }, 'w17')).toBe(true);
  });
});
