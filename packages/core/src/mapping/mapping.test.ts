import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
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
    ['ᾀ ß', 'ᾀ ß'],
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
