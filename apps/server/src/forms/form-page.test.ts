import { describe, expect, test } from '@jest/globals';
import type { FormDefinition, Question } from '@haycart/core';
import fc from 'fast-check';
import { formPage, messagePage, visitFromAddress } from './form-page';

const form = (...questions: Question[]): FormDefinition => ({
  format: 'haycart.form/1',
  title: 'Ask',
  language: 'en',
  button: 'Send',
  thanks: { title: 'Thanks', text: '' },
  questions,
});
const shown = (question: Question, answer?: string, refused?: string) =>
  formPage({
    form: form(question),
    action: '/in/key',
    once: 'once',
    visit: '{}',
    ...(answer === undefined ? {} : { answers: { [question.name]: answer } }),
    ...(refused ? { refused: [{ name: question.name, code: 'required' as const, message: refused }] } : {}),
  });

describe('a form’s page', () => {
  test.each<[Question, RegExp]>([
    [{ name: 'a', type: 'text', label: 'A' }, /<input type="text" +id="q-a" name="a" value="">/],
    [
      { name: 'a', type: 'email', label: 'A', required: true },
      /<input type="email" autocomplete="email"[^>]* required/,
    ],
    [{ name: 'a', type: 'phone', label: 'A' }, /<input type="tel" autocomplete="tel"/],
    [{ name: 'a', type: 'long-text', label: 'A' }, /<textarea rows="5"/],
    [
      { name: 'a', type: 'choice', label: 'A', options: [{ value: 'x', label: 'X' }] },
      /<select [^>]*><option value=""><\/option><option value="x">X<\/option>/,
    ],
    [{ name: 'a', type: 'consent', label: 'Yes' }, /<input type="checkbox" value="yes"/],
    [{ name: 'a', type: 'hidden', label: '', value: 'web' }, /<input type="hidden" name="a" value="web">/],
  ])('asks %j', (question, html) => expect(shown(question)).toMatch(html));

  test('ties help and errors to their question', () => {
    const page = shown({ name: 'a', type: 'text', label: 'A', help: 'Guess' }, 'typed', 'Please fill this in.');
    expect(page).toContain('aria-describedby="h-a e-a"');
    expect(page).toContain('aria-invalid="true"');
    expect(page).toContain('<a href="#q-a">A</a>: Please fill this in.');
    expect(page).toContain('value="typed"');
  });

  test('lets nothing that was typed or defined out of its place', () => {
    const hostile = fc.constantFrom(
      '"><script>alert(1)</script>',
      "' onload='x",
      '</textarea><b>',
      '&lt;',
      '<!--',
      ']]>',
    );
    fc.assert(
      fc.property(
        hostile,
        fc.constantFrom<Question['type']>('text', 'email', 'phone', 'long-text', 'choice', 'consent', 'hidden'),
        (text, type) => {
          const page = shown(
            {
              name: 'a',
              type,
              label: text,
              help: text,
              placeholder: text,
              options: [{ value: text, label: text }],
              value: text,
            },
            text,
            text,
          );
          expect(page.match(/<script/g)).toHaveLength(1);
          expect(page).not.toContain(text);
        },
      ),
    );
    expect(messagePage('en', '<b>', '<i>')).not.toMatch(/<b>|<i>/);
  });
});

test('the visit of an address is its campaign and the page that led there', () => {
  const read = (query: string, referer?: string) =>
    JSON.parse(visitFromAddress(new URLSearchParams(query), referer)) as object;
  expect(read('utm_source=spring&colour=red&page=https://a.example/')).toEqual({
    utm_source: 'spring',
    page: 'https://a.example/',
  });
  expect(read('', 'https://b.example/')).toEqual({ page: 'https://b.example/' });
});
