import { describe, expect, test } from '@jest/globals';
import type { JsonObject } from '../json';
import type { FormDefinition } from './definition';
import { OPENED, SET_ASIDE_FROM, suspicionOf, TRAP, type Blocked } from './suspicion';

const form: FormDefinition = {
  format: 'haycart.form/1',
  title: 'T',
  button: 'Send',
  language: 'en',
  after: { do: 'thank', title: 'Thanks', text: '' },
  items: [
    { name: 'first_name', type: 'text', label: 'First name' },
    { name: 'email', type: 'email', label: 'E-mail' },
    { name: 'message', type: 'long-text', label: 'Message' },
  ],
};
const AT = '2026-03-14T09:30:00.000Z';
const honest = { first_name: 'Ada', email: 'ada@weir.example', message: 'See https://weir.example/plan, please.' };
const suspicion = (more: JsonObject, blocked: Partial<Blocked> = {}, fromVisitor = 1) =>
  suspicionOf(form, { ...honest, ...more }, { words: [], domains: [], ...blocked }, { receivedAt: AT, fromVisitor });

describe('a submission', () => {
  test('of a person is not suspicious', () => {
    expect(suspicion({})).toEqual({ score: 0, reasons: [] });
    expect(suspicion({ [TRAP]: '', [OPENED]: String(Date.parse(AT) - 45_000) }).score).toBe(0);
  });

  test.each<[string, JsonObject, Partial<Blocked>, number, RegExp]>([
    ['that answers the trap', { [TRAP]: 'https://x.example' }, {}, 1, /no person sees/],
    ['with a link for a name', { first_name: 'Win https://x.example' }, {}, 1, /The name contains a link/],
    [
      'with many links',
      { message: 'www.a.example www.b.example http://c http://d http://e http://f' },
      {},
      1,
      /6 links/,
    ],
    ['with a blocked word', { message: 'Cheap LOANS for you' }, { words: ['loans'] }, 1, /blocked word “loans”/],
    ['from a blocked domain', { email: 'x@spam.example' }, { domains: ['spam.example'] }, 1, /blocked domain/],
    ['that is one of very many', {}, {}, 31, /number 31 from the same address/],
  ])('%s is set aside, saying why', (_, more, blocked, count, reason) => {
    const found = suspicion(more, blocked, count);
    expect(found.score).toBeGreaterThanOrEqual(SET_ASIDE_FROM);
    expect(found.reasons[0]).toMatch(reason);
  });

  test('with one small mark only is not set aside, and marks add up', () => {
    const fast = { [OPENED]: String(Date.parse(AT) - 800) };
    expect(suspicion(fast)).toEqual({ score: 60, reasons: ['It was sent 0.8 seconds after the form was opened.'] });
    expect(suspicion({ message: '<b>hello</b>' }).score).toBeLessThan(SET_ASIDE_FROM);
    expect(suspicion({ ...fast, message: '<b>hello</b>' }).score).toBeGreaterThanOrEqual(SET_ASIDE_FROM);
  });

  test('holds a blocked word only where it stands by itself', () => {
    expect(suspicion({ message: 'The loan office' }, { words: ['loa'] }).score).toBe(0);
    expect(suspicion({ message: 'a loa.' }, { words: ['', 'loa'] }).score).toBe(100);
  });
});
