import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { normalEmail } from '../reading/email';
import { normalPhone } from '../reading/phone';
import type { JsonObject } from '../json';
import { answeredPayload, answeredVersion, joinedAnswers, NOT_ASKED } from './answered-payload';
import { checkAnswers, readAnswer } from './check-answers';
import { QUESTION_TYPES, questionsOf, type FormDefinition, type FormItem, type Question } from './definition';
import { exampleAnswers } from './example-answers';
import { formShape } from './form-shape';
import { formWords } from './form-words';
import { fitsPattern } from './pattern';
import { QUESTION_TYPE_LIST } from './question-types/registry';

const question = (type: Question['type'], more: Partial<Question> = {}): Question => ({
  name: 'q',
  type,
  label: 'Question',
  ...more,
});
const setting = {
  words: formWords('en'),
  isFreeMail: (domain: string) => domain === 'post.example',
  isThrowAway: (domain: string) => domain === 'gone.example',
};
const code = (one: Question, answer: unknown) => readAnswer(one, answer, setting).code;
const formOf = (...items: FormItem[]): FormDefinition => ({
  format: 'haycart.form/1',
  title: 'T',
  button: 'Send',
  language: 'en',
  after: { do: 'thank', title: 'Thanks', text: '' },
  items,
});

describe('answers', () => {
  test.each<[Question, unknown, string | undefined]>([
    [question('text', { required: true }), '  ', 'required'],
    [question('text', { required: true }), undefined, 'required'],
    [question('text'), undefined, undefined],
    [question('text', { checks: { longest: 3 } }), 'long', 'too-long'],
    [question('text', { checks: { shortest: 3 } }), 'no', 'too-short'],
    [question('text', { checks: { pattern: 'AA-9999' } }), 'qf-0412', undefined],
    [question('text', { checks: { pattern: 'AA-9999' } }), 'qf-041', 'other-shape'],
    [question('email'), `${'a'.repeat(300)}@weir.example`, 'too-long'],
    [question('email', { checks: { workEmail: true } }), 'ada@post.example', 'not-a-work-email'],
    [question('email', { checks: { noThrowAway: true } }), 'ada@gone.example', 'throw-away-email'],
    [question('money', { currency: 'GBP', checks: { least: 100 } }), '£ 99.99', 'too-small'],
    [question('date', { checks: { least: '2027-01-01' } }), '2026-12-31', 'too-small'],
    [question('one-of', { required: true, options: [{ value: 'a', label: 'A' }] }), '', 'required'],
    [question('several-of', { options: [{ value: 'a', label: 'A' }] }), ['a', 'b'], 'unknown-choice'],
    [question('consent', { required: true }), undefined, 'required'],
    [question('hidden', { required: true }), undefined, undefined],
    [question('file', { checks: { fileTypes: ['pdf'] } }), { file: 'id', name: 'a.exe' }, 'wrong-file-type'],
    [question('text'), { nested: [1] }, undefined],
  ])('%#', (one, answer, expected) => expect(code(one, answer)).toBe(expected));

  test.each(QUESTION_TYPE_LIST.filter(({ name }) => name !== 'file'))('a made-up answer to $name is taken', (type) => {
    const made = exampleAnswers(formOf(question(type.name, { required: true, ...type.example.question })));
    expect(code(question(type.name, type.example.question), made.q)).toBeUndefined();
    expect(made.q).not.toBe('');
  });

  test.each(QUESTION_TYPE_LIST.map((type) => [type.name, type] as const))('%s reads its example', (name, type) => {
    const one = question(name, type.example.question);
    expect(readAnswer(one, type.example.takes[0], setting)).toEqual({ value: type.example.takes[1] });
    if (type.example.refuses !== undefined) expect(code(one, type.example.refuses)).toBeDefined();
  });

  test('of any kind are read without throwing', () => {
    fc.assert(
      fc.property(fc.constantFrom(...QUESTION_TYPES), fc.jsonValue(), fc.boolean(), (type, answer, required) =>
        expect(() => readAnswer(question(type, { required }), answer, setting)).not.toThrow(),
      ),
    );
  });

  test('a pattern holds letters, digits and itself', () => {
    expect(fitsPattern('AB1 2cd', 'AA9 9AA')).toBe(true);
    expect(fitsPattern('AB12CD', 'AA9 9AA')).toBe(false);
    expect(fitsPattern('é7', 'X9')).toBe(true);
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
        fc.pre(code(question('email'), email) === undefined);
        expect({ email, read: normalEmail(email).ok }).toEqual({ email, read: true });
      }),
      { numRuns: 2_000 },
    );
  });

  test('is any that is in common use', () => {
    for (const email of ['a@b.example', "o'neil@weir.example", 'a.b+c@x-y.example.org', 'ÅSA@lind.example', '_a@b.co'])
      expect(code(question('email'), email)).toBeUndefined();
  });
});

describe('a question that is not shown', () => {
  const kinds = [
    { value: 'school', label: 'School' },
    { value: 'trade', label: 'Trade' },
  ];
  const form = formOf(
    question('one-of', { name: 'kind', options: kinds }),
    question('text', {
      name: 'school',
      required: true,
      shownWhen: { of: { question: 'kind' }, test: 'is-any-of', value: ['school'] },
    }),
    question('text', {
      name: 'head',
      required: true,
      shownWhen: { of: { question: 'school' }, test: 'filled' },
    }),
  );

  test('is not needed, and neither is what waits for it', () => {
    expect(checkAnswers(form, { kind: 'trade' }, setting).refused).toEqual([]);
    expect(checkAnswers(form, { kind: 'school' }, setting).refused.map(({ name }) => name)).toEqual(['school']);
    const hidden = checkAnswers(form, { kind: 'trade', school: 'Fennwick' }, setting);
    expect([...hidden.shown]).toEqual(['kind']);
  });

  test('in a step that is not shown is not shown either', () => {
    const stepped = formOf(
      form.items[0]!,
      {
        name: 'more',
        type: 'step',
        text: 'More',
        shownWhen: { of: { question: 'kind' }, test: 'is-any-of', value: ['school'] },
      },
      question('text', { name: 'pupils', required: true }),
    );
    expect([...checkAnswers(stepped, { kind: 'trade' }, setting).shown]).toEqual(['kind']);
    expect([...checkAnswers(stepped, { kind: 'school' }, setting).shown]).toEqual(['kind', 'more', 'pupils']);
  });

  test('never gives its answer to a record, whatever is sent and whatever waits for what', () => {
    const names = ['a', 'b', 'c', 'd'];
    const condition = fc.record({
      of: fc.record({ question: fc.constantFrom(...names) }),
      test: fc.constantFrom('is', 'is-not', 'filled', 'blank'),
      value: fc.constantFrom('x', 'y'),
    });
    const forms = fc
      .tuple(...names.map(() => fc.option(condition, { nil: undefined })))
      .map((conditions) =>
        formOf(
          ...names.map((name, at) =>
            question('text', { name, ...(conditions[at] ? { shownWhen: conditions[at] } : {}) }),
          ),
        ),
      );
    const sent = fc.dictionary(fc.constantFrom(...names, 'stranger', '_visit'), fc.constantFrom('x', 'y', ''));
    fc.assert(
      fc.property(forms, sent, (any, payload) => {
        const { shown } = checkAnswers(any, payload, setting);
        const kept = answeredPayload(any, payload as JsonObject, shown);
        for (const { name } of questionsOf(any)) if (!shown.has(name)) expect(kept).not.toHaveProperty(name);
        expect(kept).not.toHaveProperty('stranger');
        const all = { ...kept, ...(kept[NOT_ASKED] as JsonObject | undefined) };
        for (const [name, answer] of Object.entries(payload)) expect(all[name]).toBe(answer);
      }),
    );
  });

  test('a fixed value is the form’s, whatever is sent; one from the address stands in only when there is none', () => {
    const hidden = formOf(
      question('hidden', { name: 'channel', value: 'web' }),
      question('hidden', { name: 'stand', from: 'stand', value: 'none' }),
    );
    const shown = new Set(['channel', 'stand']);
    expect(answeredPayload(hidden, { channel: 'forged', stand: 'B4' }, shown)).toEqual({
      channel: 'web',
      stand: 'B4',
      [NOT_ASKED]: { channel: 'forged' },
    });
    expect(answeredPayload(hidden, {}, shown)).toEqual({ channel: 'web', stand: 'none' });
  });
});

test.each<[unknown, number]>([
  ['2', 2],
  ['3', 3],
  ['4', 3],
  ['0', 3],
  ['-1', 3],
  ['two', 3],
  [undefined, 3],
  [{ toString: 'x' }, 3],
])('of three versions, a page that tells %j was answered in version %i', (told, version) =>
  expect(answeredVersion(told, 3)).toBe(version),
);

test('a postal address is one answer, however it was sent', () => {
  const form = formOf(question('address', { name: 'where' }), question('text', { name: 'other' }));
  const one = { where: '1 Weir Lane\nAB1 2CD' };
  expect(joinedAnswers(form, { 'where[]': ['1 Weir Lane', 'AB1 2CD', '', ''], other: 'x' })).toEqual({
    ...one,
    other: 'x',
  });
  expect(joinedAnswers(form, { 'where[]': '1 Weir Lane' })).toEqual({ where: '1 Weir Lane' });
  expect(joinedAnswers(form, one)).toBe(one);
  expect(joinedAnswers(form, { ...one, 'where[]': ['another'] })).toEqual(one);
});

test.each([
  [['NL', '06 12345678'], '+31 6 12345678'],
  [['GB', '07700 900318'], '+44 7700 900318'],
  [['GB', '+31 6 12345678'], '+31 6 12345678'],
  [['NL', '0031 6 12345678'], '+31 6 12345678'],
  [['NL', '12'], '+31 12'],
  [['NL', ' '], ''],
  [['', '06 12345678'], '06 12345678'],
  [['XX', '06 12345678'], '06 12345678'],
  ['06 12345678', '06 12345678'],
])('a phone number sent as %j is the answer “%s”', (sent, phone) =>
  expect(joinedAnswers(formOf(question('phone', { name: 'tel', asksCountry: true })), { 'tel[]': sent })).toEqual({
    tel: phone,
  }),
);

test.each([
  ['07700 900318', 'GB', true],
  ['07700 900318 1234', 'GB', false],
  ['+31 6 12345678', 'GB', true],
  ['+44 7700 900318 1234', undefined, false],
  ['06 12345678', undefined, true],
])('where numbers can be looked at, %s of %s is taken: %s', (answer, country, taken) => {
  const setting = { words: formWords('en'), isPhone: (text: string, from: string) => normalPhone(text, from).ok };
  expect(readAnswer(question('phone', { country }), answer, setting).code).toBe(taken ? undefined : 'not-a-phone');
});

describe('a form definition', () => {
  const form = formOf(question('text'));
  test.each([
    [form, true],
    [{ ...form, items: [] }, false],
    [formOf(question('text'), question('email')), false],
    [formOf(question('one-of')), false],
    [formOf(question('one-of', { feeds: { record: 'contact', field: 'kind' } })), true],
    [formOf(question('text', { name: 'Not a name' })), false],
    [formOf({ name: 'line', type: 'divider' }), true],
    [{ ...form, colour: 'red' }, false],
    [{ ...form, language: 'no such thing' }, false],
    [{ ...form, translations: { 'zh-Hant-TW': { title: '問' } } }, true],
    [{ ...form, translations: { '<b>': {} } }, false],
    [{ ...form, after: { do: 'redirect', to: 'javascript:alert(1)' } }, false],
    [{ ...form, embedOn: ['https://www.example.com/page'] }, false],
    [{ ...form, embedOn: ['https://x.example;script-src'] }, false],
    [{ ...form, embedOn: ['http://127.0.0.1:4601'] }, true],
    [formOf(...Array.from({ length: 301 }, (_, n) => question('text', { name: `q${n}` }))), false],
  ])('%#', (definition, fits) => expect(formShape.safeParse(definition).success).toBe(fits));
});
