import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readFieldValue, showFieldValue } from '../destination/field-value';
import type { FieldDefinition, FieldType } from '../destination/field-definition';
import { formatMoney, readMoney } from '../destination/money';
import { FINISHERS, finisherNamed } from './finishers/registry';
import { joinParts, workOutValue } from './value';

const setting = { defaultCountry: 'GB' };
const finish = (name: string, text: string, parameters: Record<string, unknown> = {}) => {
  const finisher = finisherNamed(name)!;
  return finisher.finish(text, finisher.parameters.parse(parameters), setting);
};

describe('joining', () => {
  test('leaves out blanks together with their separators', () => {
    expect(joinParts(['Ada', ''], ' ')).toBe('Ada');
    expect(joinParts(['', ' ', 'b', 'c'], ', ')).toBe('b, c');
  });

  test('is the join of what is not blank, whatever the parts', () => {
    fc.assert(
      fc.property(fc.array(fc.string()), fc.string(), (texts, separator) =>
        expect(joinParts(texts, separator)).toBe(texts.filter((text) => text.trim()).join(separator)),
      ),
    );
  });
});

describe('finishers', () => {
  test.each(FINISHERS.map((finisher) => [finisher.name, finisher] as const))(
    '%s does what its example says',
    (_, { finish: run, parameters, example }) => {
      expect(run(example.before, parameters.parse(example.with ?? {}), setting).text).toBe(example.after);
    },
  );

  test.each(FINISHERS.map((finisher) => [finisher.name, finisher] as const))(
    '%s leaves its own result as it is',
    (_, { finish: run, parameters }) => {
      fc.assert(
        fc.property(fc.string({ unit: 'binary', maxLength: 60 }), (any) => {
          const once = run(any, parameters.parse({}), setting).text;
          expect(run(once, parameters.parse({}), setting).text).toBe(once);
        }),
      );
    },
  );

  test.each([
    ['MCKENZIE', 'McKenzie'],
    ["o'brien", "O'Brien"],
    ['anne-marie', 'Anne-Marie'],
    ['DE RUITER', 'de Ruiter'],
    ['van der meer', 'van der Meer'],
    ['ÅSA LIND', 'Åsa Lind'],
    ['MacGregor', 'MacGregor'],
    ['محمد علي', 'محمد علي'],
    ['王小明', '王小明'],
  ])('name case writes %s as %s', (before, after) => expect(finish('name-case', before).text).toBe(after));

  test.each([
    ['07700 900318', 'GB', '+447700900318'],
    ['+31 6 0000 4182', 'GB', '+31600004182'],
    ['(416) 555-0123', 'CA', '+14165550123'],
    ['0044 7700 900318', 'GB', '+447700900318'],
  ])('phone reads %s from %s', (text, country, e164) => expect(finish('phone', text, { country }).text).toBe(e164));

  test('phone says what it cannot read, and leaves a blank', () => {
    expect(finish('phone', 'call me')).toMatchObject({ text: '', problem: { code: 'not-a-phone' } });
    expect(finisherNamed('phone')!.parameters.safeParse({ country: 'XX' }).success).toBe(false);
  });

  test.each([
    ['ada@mail.fennwick.example', 'fennwick.example'],
    ['ada@gmail.com', ''],
    ['ada@example.com', ''],
    ['https://shop.weir.co.uk/x', 'weir.co.uk'],
    ['nothing', ''],
  ])('company domain of %s is %s', (text, domain) => expect(finish('company-domain', text).text).toBe(domain));

  test('e-mail refuses what is too long or no address', () => {
    expect(finish('email', `${'a'.repeat(290)}@x.example`)).toMatchObject({
      text: '',
      problem: { code: 'email-too-long' },
    });
    expect(finish('email', 'ada at example')).toMatchObject({ text: '', problem: { code: 'not-an-email' } });
    expect(finish('email', '  ')).toEqual({ text: '', problem: undefined });
  });

  test('no text makes one slow or throw', () => {
    const hostile = [
      '<'.repeat(200_000),
      'a@'.repeat(100_000),
      `+${'1'.repeat(200_000)}`,
      ' '.repeat(200_000),
      '.'.repeat(200_000),
    ];
    for (const { finish: run, parameters } of FINISHERS)
      for (const text of hostile) expect(typeof run(text, parameters.parse({}), setting).text).toBe('string');
  });
});

describe('a value', () => {
  test('keeps the trace of its parts and steps', () => {
    const worked = workOutValue(
      {
        parts: [{ answer: 'first' }, { text: '-' }, { answer: 'gone' }],
        joinWith: '',
        finishers: [{ use: 'trim' }, { use: 'name-case' }],
      },
      (part) => ('answer' in part ? { first: ' ADA' }[part.answer] : 'text' in part ? part.text : undefined),
      setting,
    );
    expect(worked.text).toBe('ADA-'.toLowerCase().replace('a', 'A'));
    expect(worked.trace.parts.map(({ text }) => text)).toEqual([' ADA', '-', '']);
    expect(worked.trace.steps).toEqual([
      { use: 'trim', before: ' ADA-', after: 'ADA-' },
      { use: 'name-case', before: 'ADA-', after: 'Ada-' },
    ]);
  });

  test('says when a finisher does not exist', () => {
    expect(
      workOutValue({ parts: [{ text: 'x' }], finishers: [{ use: 'gone' }] }, () => 'x', setting).problems[0]?.code,
    ).toBe('unknown-finisher');
  });
});

describe('values of a field', () => {
  const field = (type: FieldType, more: Partial<FieldDefinition> = {}): FieldDefinition => ({
    record: 'contact',
    key: 'f',
    label: 'Field',
    type,
    builtIn: false,
    required: false,
    ...more,
  });
  const defaults = { defaultCountry: 'GB', defaultCurrency: 'GBP' };
  const options = [
    { key: 'school', label: 'Teaching garden', aliases: ['School garden'] },
    { key: 'trade', label: 'To sell' },
  ];

  test.each<[FieldType, string, unknown]>([
    ['whole-number', '12', 12],
    ['decimal', '1.250,5', 1250.5],
    ['decimal', '-3', -3],
    ['date', '2026-02-28', '2026-02-28'],
    ['date-time', '2026-02-28T10:00:00+01:00', '2026-02-28T09:00:00.000Z'],
    ['yes-no', 'Ja', true],
    ['yes-no', 'off', false],
    ['one-of', 'SCHOOL GARDEN', 'school'],
    ['several-of', 'To sell; teaching garden', ['trade', 'school']],
    ['money', '£ 48,000', { amount: 4_800_000, currency: 'GBP' }],
    ['email', 'A@B.example', 'a@b.example'],
    ['phone', '07700 900318', '+447700900318'],
  ])('a %s reads %s', (type, given, value) =>
    expect(readFieldValue(field(type, { options }), given, defaults)).toEqual({ value }),
  );

  test.each<[FieldType, string]>([
    ['whole-number', 'a few'],
    ['whole-number', '99999999999999999999'],
    ['date', '2026-02-30'],
    ['date-time', 'tomorrow'],
    ['yes-no', 'maybe'],
    ['one-of', 'Rooftop café'],
    ['money', 'plenty'],
    ['text', 'x'.repeat(1_001)],
    ['email', 'not one'],
    ['phone', 'not one'],
  ])('a %s does not take %.30s', (type, given) =>
    expect(readFieldValue(field(type, { options }), given, defaults).problem).toBeDefined(),
  );

  test('are shown with labels and currencies', () => {
    expect(showFieldValue(field('several-of', { options }), ['school', 'trade'])).toBe('Teaching garden, To sell');
    expect(showFieldValue(undefined, true)).toBe('yes');
  });
});

describe('amounts of money', () => {
  test.each<[string, number | null, string]>([
    ['€ 12.500,50', 1_250_050, 'EUR'],
    ['12,500.50', 1_250_050, 'GBP'],
    ['1.000', 100_000, 'GBP'],
    ['1.50', 150, 'GBP'],
    ['GBP 12 000', 1_200_000, 'GBP'],
    ['-£5', -500, 'GBP'],
    ['500 CAD', 50_000, 'CAD'],
    ['¥ 5', null, ''],
    ['1,2,3', null, ''],
    ['', null, ''],
  ])('%s', (given, amount, currency) =>
    expect(readMoney(given, 'GBP')).toEqual(amount === null ? null : { amount, currency }),
  );

  test('are read back from how they are shown', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 10 ** 12 }), fc.constantFrom('GBP', 'EUR', 'CAD'), (amount, currency) =>
        expect(readMoney(formatMoney({ amount, currency }), 'USD')).toEqual({ amount, currency }),
      ),
    );
  });
});
