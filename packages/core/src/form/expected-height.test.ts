import { expect, test } from '@jest/globals';
import { QUESTION_TYPES, type FormDefinition, type FormItem } from './definition';
import { expectedHeight } from './expected-height';

const form = (...items: FormItem[]): FormDefinition => ({
  format: 'haycart.form/1',
  title: 'Ask us',
  language: 'en',
  button: 'Send',
  after: { do: 'thank', title: 'Thanks', text: '' },
  items,
});
const item = (name: string, type: FormItem['type'], more: object = {}): FormItem =>
  ({ name, type, label: name, ...more }) as FormItem;
const height = expectedHeight;

test.each(QUESTION_TYPES.filter((type) => type !== 'hidden'))('a question of the type %s takes room', (type) => {
  const options = [{ value: 'a', label: 'A' }];
  expect(height(form(item('q', type, { options })))).toBeGreaterThan(height(form()) + 30);
});

test('what is not there at first takes none: hidden questions, those under a condition, and later steps', () => {
  const first = item('a', 'text');
  const later = [item('s2', 'step', { text: 'More' }), item('c', 'address')];
  const when = { of: { question: 'a' }, test: 'filled' };
  expect(height(form(first, item('h', 'hidden'), item('b', 'address', { shownWhen: when })))).toBe(height(form(first)));
  const stepped = height(form(item('s1', 'step', { text: 'You' }), first, ...later));
  expect(stepped).toBe(height(form(item('s1', 'step', { text: 'You' }), first, ...later, item('d', 'address'))));
});

test('more words, more languages and more room between questions make it higher', () => {
  const plain = form(item('a', 'text'), item('b', 'text'));
  expect(height({ ...plain, intro: 'Words. '.repeat(40) })).toBeGreaterThan(height({ ...plain, intro: 'Words.' }));
  expect(height({ ...plain, translations: { nl: {} } })).toBeGreaterThan(height(plain));
  const [tight, airy] = (['tight', 'airy'] as const).map((spacing) => height(plain, spacing));
  expect(airy! - tight!).toBe(2 * (30 - 14));
});

test('content takes the room that it fills: pictures more than headings, a line between nearly none', () => {
  const grown = (type: FormItem['type'], text?: string) =>
    height(form(item('c', type, text === undefined ? {} : { text }))) - height(form());
  expect(grown('divider')).toBeLessThan(grown('heading', 'You'));
  expect(grown('heading', 'You')).toBeLessThan(grown('text-block', 'Words. '.repeat(60)));
  expect(grown('social')).toBeLessThan(grown('image'));
});

test('choices take a line each where they are all shown, and one where they open', () => {
  const options = ['a', 'b', 'c', 'd'].map((value) => ({ value, label: value }));
  const of = (type: FormItem['type'], shownAs?: string) => height(form(item('q', type, { options, shownAs })));
  expect(of('one-of', 'radios')).toBe(of('several-of'));
  expect(of('one-of', 'radios')).toBeGreaterThan(of('one-of'));
});
