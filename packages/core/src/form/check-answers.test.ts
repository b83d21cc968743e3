import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { normalEmail } from '../identity/email';
import { checkAnswers } from './check-answers';
import { formShape, type Question } from './definition';

const question = (type: Question['type'], more: Partial<Question> = {}): Question => ({
  name: 'q',
  type,
  label: 'Question',
  ...more,
});
const codes = (one: Question, answer: unknown) => checkAnswers([one], { q: answer }).map(({ code }) => code);

describe('answers', () => {
  test.each<[Question, unknown, string[]]>([
    [question('text', { required: true }), '  ', ['required']],
    [question('text', { required: true }), undefined, ['required']],
    [question('text'), undefined, []],
    [question('text', { longest: 3 }), 'long', ['too-long']],
    [question('email'), 'ada@weir.example', []],
    [question('email'), 'ada@weir', ['not-an-email']],
    [question('email'), `${'a'.repeat(300)}@weir.example`, ['too-long']],
    [question('phone'), '+44 (0)7700 900-318', []],
    [question('phone'), 'ring me', ['not-a-phone']],
    [question('choice', { options: [{ value: 'a', label: 'A' }] }), 'a', []],
    [question('choice', { options: [{ value: 'a', label: 'A' }] }), 'b', ['unknown-choice']],
    [question('consent', { required: true }), undefined, ['required']],
    [question('consent', { required: true }), 'yes', []],
    [question('text'), { nested: [1] }, []],
  ])('%#', (one, answer, expected) => expect(codes(one, answer)).toEqual(expected));

  test('of any kind are checked without throwing', () => {
    const types: Question['type'][] = ['text', 'email', 'phone', 'choice', 'long-text', 'consent', 'hidden'];
    fc.assert(
      fc.property(fc.constantFrom(...types), fc.jsonValue(), fc.boolean(), (type, answer, required) =>
        expect(Array.isArray(codes(question(type, { required }), answer))).toBe(true),
      ),
    );
  });
});

describe('an e-mail that a form takes', () => {
  const local = fc.string({ unit: fc.constantFrom(...'aZ09._%+-é@ ,;"<()'), minLength: 1, maxLength: 70 });
  const label = fc.string({ unit: fc.constantFrom(...'aZ09-_é.'), minLength: 1, maxLength: 66 });
  const address = fc
    .tuple(local, fc.array(label, { minLength: 1, maxLength: 4 }))
    .map(([name, labels]) => `${name}@${labels.join('.')}`);

  test('is one that a route can read, so that nobody is thanked for what then fails', () => {
    fc.assert(
      fc.property(fc.oneof(address, fc.emailAddress()), (email) => {
        fc.pre(codes(question('email'), email).length === 0);
        expect({ email, read: normalEmail(email).ok }).toEqual({ email, read: true });
      }),
      { numRuns: 2_000 },
    );
  });

  test('is any that is in common use', () => {
    for (const email of ['a@b.example', "o'neil@weir.example", 'a.b+c@x-y.example.org', 'ÅSA@lind.example', '_a@b.co'])
      expect(codes(question('email'), email)).toEqual([]);
  });
});

describe('a form definition', () => {
  const form = {
    format: 'haycart.form/1',
    title: 'T',
    button: 'Send',
    language: 'en',
    thanks: { title: 'Thanks', text: '' },
    questions: [question('text')],
  };
  test.each([
    [form, true],
    [{ ...form, questions: [] }, false],
    [{ ...form, questions: [question('text'), question('email')] }, false],
    [{ ...form, questions: [question('choice')] }, false],
    [{ ...form, questions: [question('text', { name: 'Not a name' })] }, false],
    [{ ...form, colour: 'red' }, false],
  ])('%#', (definition, fits) => expect(formShape.safeParse(definition).success).toBe(fits));
});
