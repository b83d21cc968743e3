import { describe, expect, test } from '@jest/globals';
import { PLAIN_THEME, QUESTION_TYPES, type FormDefinition, type FormItem, type Question } from '@haycart/core';
import fc from 'fast-check';
import { answersFromAddress, formPage, messagePage, visitFromAddress, type ShownForm } from './form-page';
import { formHeaders } from './form-headers';

const form = (...items: FormItem[]): FormDefinition => ({
  format: 'haycart.form/1',
  title: 'Ask',
  language: 'en',
  button: 'Send',
  after: { do: 'thank', title: 'Thanks', text: '' },
  items,
});
const looks = (definition: FormDefinition): ShownForm => ({
  form: definition,
  theme: PLAIN_THEME,
  others: [],
  nonce: 'n',
  style: 'main{margin:0}',
  embedded: false,
});
const page = (definition: FormDefinition, answers = {}, refused?: string) =>
  formPage({
    ...looks(definition),
    action: '/in/key',
    once: 'once',
    visit: '{}',
    answers,
    ...(refused ? { refused: [{ name: 'a', code: 'required' as const, message: refused }] } : {}),
  });
const shown = (question: Question, answer?: string, refused?: string) =>
  page(form(question), answer === undefined ? {} : { [question.name]: answer }, refused);

describe('a form’s page', () => {
  test('runs no script of its own where it is previewed: the page around it forbids that', () => {
    const inline = /<script(?![^>]*\ssrc=)/;
    const shownTo = (action: string | undefined) =>
      formPage({ ...looks(form()), once: 'once', visit: '{}', answers: {}, ...(action ? { action } : {}) });
    expect(shownTo('/in/key')).toMatch(inline);
    expect(shownTo(undefined)).not.toMatch(inline);
    expect(shownTo(undefined)).toContain('class="scripted"');
  });

  test.each<[Question, RegExp]>([
    [{ name: 'a', type: 'text', label: 'A' }, /<input type="text"[^>]* id="q-a" name="a" value="">/],
    [
      { name: 'a', type: 'email', label: 'A', required: true },
      /<input type="email" autocomplete="email"[^>]* required/,
    ],
    [{ name: 'a', type: 'phone', label: 'A' }, /<input type="tel" autocomplete="tel"/],
    [{ name: 'a', type: 'long-text', label: 'A' }, /<textarea rows="5"/],
    [
      { name: 'a', type: 'one-of', label: 'A', options: [{ value: 'x', label: 'X' }] },
      /<select [^>]*><option value="">Please choose<\/option><option value="x">X<\/option>/,
    ],
    [
      { name: 'a', type: 'one-of', label: 'A', shownAs: 'cards', options: [{ value: 'x', label: 'X' }] },
      /<fieldset[^>]*><legend>A.*<div class="cards"><label><input type="radio" name="a" value="x">/,
    ],
    [{ name: 'a', type: 'yes-no', label: 'A' }, /<input type="radio" name="a" value="yes"><span>Yes/],
    [{ name: 'a', type: 'address', label: 'A' }, /<input type="text" name="a\[\]" autocomplete="address-line1"/],
    [{ name: 'a', type: 'date', label: 'A', checks: { least: '2027-01-01' } }, /<input type="date" min="2027-01-01"/],
    [{ name: 'a', type: 'file', label: 'A', checks: { fileTypes: ['pdf'] } }, /<input type="file"[^>]* accept=".pdf"/],
    [{ name: 'a', type: 'money', label: 'A', currency: 'GBP' }, /GBP<\/span><input type="text" inputmode="decimal"/],
    [{ name: 'a', type: 'consent', label: 'Yes' }, /<input type="checkbox" value="yes"/],
    [{ name: 'a', type: 'hidden', label: '', value: 'web' }, /<input type="hidden" name="a" value="web">/],
  ])('asks %j', (question, html) => expect(shown(question)).toMatch(html));

  test('ties help and errors to their question', () => {
    const asked = shown({ name: 'a', type: 'text', label: 'A', help: 'Guess' }, 'typed', 'Please fill this in.');
    expect(asked).toContain('aria-describedby="h-a e-a"');
    expect(asked).toContain('aria-invalid="true"');
    expect(asked).toContain('<a href="#q-a">A</a>: Please fill this in.');
    expect(asked).toContain('value="typed"');
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
    const own = shown({ name: 'a', type: 'text', label: 'A' }).match(/<script/g)!;
    fc.assert(
      fc.property(hostile, fc.constantFrom<Question['type']>(...QUESTION_TYPES), (text, type) => {
        const asked = shown(
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
        expect(asked.match(/<script/g)).toHaveLength(own.length);
        expect(asked).not.toContain(text);
      }),
    );
    expect(messagePage(looks(form()), '<b>', '<i>')).not.toMatch(/<b>|<i>/);
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

test('steps are sections that say where one is, and content stands between questions', () => {
  const stepped = page(
    form(
      { name: 'one', type: 'step', text: 'You' },
      { name: 'a', type: 'text', label: 'A' },
      { name: 'two', type: 'step', text: 'Yours' },
      { name: 'h', type: 'heading', text: '<Hello>' },
      { name: 'code', type: 'html', text: '<script>top.x</script>' },
      { name: 'b', type: 'text', label: 'B' },
    ),
  );
  expect(stepped.match(/<section class="step"/g)).toHaveLength(2);
  expect(stepped).toContain('Step 2 of 2');
  expect(stepped).toContain('<h2>&#60;Hello&#62;</h2>');
  expect(stepped).toMatch(/<iframe class="code" sandbox="allow-scripts allow-popups"/);
  expect(stepped).not.toContain('<script>top');
});

test('what is not shown takes its answer from the address where the form says so, and nothing else does', () => {
  const definition = form(
    { name: 'stand', type: 'hidden', label: '', from: 'stand' },
    { name: 'email', type: 'email', label: 'E' },
  );
  expect(answersFromAddress(definition, new URLSearchParams('stand=B4&email=x'))).toEqual({ stand: 'B4' });
});

describe('a form’s page is kept off the application', () => {
  const policy = (definition: FormDefinition) => formHeaders(definition, 'n')['content-security-policy']!;
  test('by an origin of its own, whatever code it brings', () => {
    for (const one of [form(), { ...form(), snippets: { head: '<script src="https://x.example"></script>' } }]) {
      expect(policy(one)).toContain('sandbox allow-forms');
      expect(policy(one)).not.toContain('allow-same-origin');
    }
    expect(policy(form())).not.toContain('unsafe-inline');
  });
  test('may be embedded where it says', () => {
    expect(policy(form())).toContain('frame-ancestors *');
    expect(policy({ ...form(), embedOn: ['https://www.weir.example'] })).toContain(
      "frame-ancestors 'self' https://www.weir.example",
    );
  });
});
