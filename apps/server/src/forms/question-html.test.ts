import { describe, expect, test } from '@jest/globals';
import { formWords, QUESTION_TYPES, type JsonValue, type Question, type QuestionTypeName } from '@haycart/core';
import { questionHtml } from './question-html';

const words = formWords('en');
const OPTIONS = [
  { value: 'moss', label: 'Moss' },
  { value: 'fern', label: 'Fern & <co>' },
];
const question = (type: QuestionTypeName, more: Partial<Question> = {}): Question => ({
  name: 'q',
  type,
  label: 'Which?',
  ...(type === 'one-of' || type === 'several-of' ? { options: OPTIONS } : {}),
  ...more,
});
const html = (asked: Question, answer?: JsonValue, refused?: string) =>
  String(questionHtml(asked, answer, refused, words));
const SHOWN = QUESTION_TYPES.filter((type) => type !== 'hidden');

describe.each(SHOWN)('a question of the type %s', (type) => {
  test('has its words, and says that it may be left blank', () => {
    const asked = html(question(type));
    expect(asked).toContain('Which?');
    if (type !== 'consent') expect(asked).toContain('optional');
    expect(html(question(type, { required: true }))).not.toContain('optional');
  });

  test('holds nothing that was typed as code', () => {
    const hostile = `"'><script>alert('x')</script>`;
    const asked = html(
      question(type, { label: hostile, help: hostile, placeholder: hostile, value: hostile }),
      hostile,
      hostile,
    );
    expect(asked).not.toContain('<script');
    expect(asked).not.toContain(hostile.slice(0, 3));
  });

  test('points to its help and to what is wrong with the answer', () => {
    const asked = html(question(type, { help: 'As you like.' }), 'x', 'Please choose.');
    expect(asked).toContain('aria-describedby="h-q e-q"');
    expect(asked).toContain('aria-invalid="true"');
    expect(asked).toContain('<span class="error" id="e-q">Please choose.</span>');
    expect(html(question(type))).toContain('id="e-q" hidden');
  });

  test('can be reached by its name from the list of what is wrong', () =>
    expect(html(question(type))).toContain('id="q-q"'));
});

describe('an answer', () => {
  test.each<[Question, JsonValue, string]>([
    [question('text'), 'Ada "A" Weir', 'value="Ada &#34;A&#34; Weir"'],
    [question('long-text'), 'two\nlines', '>two\nlines</textarea>'],
    [question('one-of'), 'moss', '<option value="moss" selected>Moss'],
    [question('one-of', { shownAs: 'radios' }), 'fern', 'value="fern" checked'],
    [question('several-of'), ['moss', 'fern'], 'value="moss" checked'],
    [question('yes-no'), 'no', 'value="no" checked'],
    [question('consent'), 'yes', 'name="q" checked'],
    [question('address'), 'Wharf 3\nLS1 4DY\nLeeds', 'value="Leeds"'],
    [question('hidden', { value: 'fair' }), 'shop', 'value="shop"'],
    [
      question('phone', { asksCountry: true, country: 'GB' }),
      '+49 30 123456',
      'data-code="49" data-first selected>Germany',
    ],
    [
      question('phone', { asksCountry: true, country: 'GB' }),
      '+1 212 5550123',
      'data-code="1" data-first selected>United States',
    ],
    [question('phone', { asksCountry: true, country: 'CA' }), '+1 613 5550123', 'data-code="1" selected>Canada'],
  ])('is there again after a refusal: %j', (asked, answer, shown) => expect(html(asked, answer)).toContain(shown));

  test('is what the form says before anybody answered', () => {
    expect(html(question('text', { value: 'Moss' }))).toContain('value="Moss"');
    expect(html(question('one-of', { value: 'fern' }))).toContain('value="fern" selected');
    expect(html(question('hidden', { value: 'fair' }))).toContain('value="fair"');
  });
});

describe('browsers', () => {
  test.each<[Question, string]>([
    [question('email'), 'type="email" autocomplete="email"'],
    [question('phone'), 'type="tel" autocomplete="tel"'],
    [
      question('phone', { asksCountry: true, country: 'NL' }),
      'value="NL" data-code="31" data-first selected>Netherlands +31<',
    ],
    [question('phone', { asksCountry: true }), '<option value="">Country</option>'],
    [question('text', { feeds: { record: 'contact', field: 'first_name' } }), 'autocomplete="given-name"'],
    [question('text', { name: 'organisation' }), 'autocomplete="organization"'],
    [question('whole-number'), 'inputmode="numeric"'],
    [question('money', { currency: 'EUR' }), '>EUR</span>'],
    [question('date', { checks: { least: '2026-01-01' } }), 'min="2026-01-01"'],
    [question('file', { checks: { fileTypes: ['pdf', 'png'] } }), 'accept=".pdf,.png"'],
    [question('text', { checks: { longest: 40 } }), 'maxlength="40"'],
    [question('address', { country: 'NL' }), 'value="Netherlands"'],
  ])('are told what is asked for: %j', (asked, told) => expect(html(asked)).toContain(told));
});
