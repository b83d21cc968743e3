import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { FieldValues } from '../../diff/record';
import { generatePeople, seeded } from '../../testing/people';
import { LEVELS, patternOf, type Pattern } from './agreement';
import { BlockIndex } from './block-index';
import { blocksOf } from './blocks';
import { commonValues } from './common-values';
import { comparedForm } from './compared';
import { agreements, COMPARED_FIELDS } from './compared-fields';
import { estimateModel } from './estimate';
import { grownModel, startingModel, type LikenessModel } from './model';
import { countPatterns, spreadPairs } from './pairs';
import { likeness } from './score';
import { checkThresholds, verdictOn } from './thresholds';
import { percent, shareInWords } from './words';

const model = startingModel('contact', 1_000);
const form = (values: FieldValues) => comparedForm('contact', values);
const like = (one: FieldValues, other: FieldValues, by = model) => likeness(by, form(one), form(other));
const ada = {
  first_name: 'Ada',
  last_name: 'Thackeray',
  email: 'ada.thackeray@fennwick.example',
  phone: '+447700900318',
};

const generated = generatePeople(7, 400).records;
const forms = generated.map(({ values, company }) =>
  comparedForm('contact', values, { companies: company ? [company] : [] }),
);

describe('likeness', () => {
  test('is the sum of its shares, the same either way round, and a probability', () => {
    const any = fc.constantFrom(...forms);
    const learned = { ...model, common: commonValues(forms) };
    fc.assert(
      fc.property(any, any, (one, other) => {
        const { bits, probability, shares } = likeness(learned, one, other);
        expect(shares.reduce((sum, share) => sum + share.bits, 0)).toBeCloseTo(bits, 9);
        expect(2 ** bits / (1 + 2 ** bits)).toBeCloseTo(probability, 9);
        expect(likeness(learned, other, one).bits).toBeCloseTo(bits, 9);
        for (const share of shares) expect(shareInWords(share)).not.toBe('');
      }),
    );
  });

  test('a rare name proves more than a common one', () => {
    const common = { ...model, common: { family: { smith: 0.02 } } };
    const pair = (last_name: string) => like({ last_name }, { last_name }, common);
    expect(pair('Thackeray').bits).toBeGreaterThan(pair('Smith').bits + 2);
    expect(pair('Smith').shares.find(({ of }) => of === 'family')!.common).toBe(2_000);
  });

  test.each<[string, FieldValues, FieldValues]>([
    ['a typing error', ada, { ...ada, last_name: 'Thackrey', email: undefined as never }],
    ['a nickname', { ...ada, first_name: 'William' }, { ...ada, first_name: 'Bill', email: undefined as never }],
    ['exchanged names', ada, { ...ada, first_name: 'Thackeray', last_name: 'Ada', email: undefined as never }],
    ['another address of the same person', ada, { ...ada, email: 'ada.t@example.net' }],
  ])('%s does not make another person', (_, one, other) => expect(like(one, other).probability).toBeGreaterThan(0.92));

  test.each<[string, FieldValues, FieldValues]>([
    ['A brother at one number', ada, { ...ada, first_name: 'Piers', email: 'piers@example.net' }],
    [
      'A colleague at one switchboard',
      { ...ada, email: 'info@fennwick.example' },
      { first_name: 'Bryony', last_name: 'Vos', email: 'info@fennwick.example', phone: ada.phone },
    ],
    ['Paula, not Paul', { ...ada, first_name: 'Paul' }, { ...ada, first_name: 'Paula', email: 'paula@example.net' }],
  ])('%s is not taken for one', (_, one, other) => expect(like(one, other).probability).toBeLessThan(0.92));

  test('records that tell nothing are as unlike as any two', () => {
    expect(like({}, {}).probability).toBeLessThan(0.01);
  });
});

describe('blocks', () => {
  const share = (one: FieldValues, other: FieldValues) =>
    blocksOf(form(one)).some((key) => blocksOf(form(other)).includes(key));

  test.each<[FieldValues, FieldValues]>([
    [
      { first_name: 'William', last_name: 'Weir' },
      { first_name: 'Bill', last_name: 'Wier' },
    ],
    [
      { first_name: 'Ada', last_name: 'Weir' },
      { first_name: 'Weir', last_name: 'Ada' },
    ],
    [{ phone: '+447700900318' }, { phone: '+447700900318' }],
    [{ email: 'ada.weir@fennwick.example' }, { email: 'ada.weir@example.net' }],
    [{ full_name: '王小明' }, { first_name: 'Xiaoming', last_name: 'Wang' }],
  ])('%j and %j are compared', (one, other) => expect(share(one, other)).toBe(true));

  test('nearly all pairs of one person are found, and few besides', () => {
    const pairs = [...new BlockIndex(forms).pairs()];
    const same = pairs.filter(([a, b]) => generated[a]!.person === generated[b]!.person).length;
    const people = new Map<number, number>();
    for (const { person } of generated) people.set(person, (people.get(person) ?? 0) + 1);
    const all = [...people.values()].reduce((sum, times) => sum + (times * (times - 1)) / 2, 0);
    expect(same / all).toBeGreaterThan(0.95);
    expect(pairs.length).toBeLessThan(forms.length * 4);
  });

  test('a name without letters, or of one letter, does no harm', () => {
    const odd: FieldValues[] = [{}, { full_name: '-' }, { full_name: 'J' }, { first_name: '😀', last_name: '1' }];
    for (const values of odd) expect(Array.isArray(blocksOf(form(values)))).toBe(true);
  });
});

describe('learning', () => {
  /** Pairs drawn from a model whose numbers are known: `same` is the share that are one person. */
  function planted(truth: LikenessModel, pairs: number, same: number) {
    const random = seeded(3);
    const counts = new Map<Pattern, number>();
    const unrelated = new Map<Pattern, number>();
    const draw = (isSame: boolean) =>
      patternOf(
        truth.fields.map((field) => {
          const odds = isSame ? field.same : field.unrelated;
          let at = random();
          return LEVELS.find((level) => (at -= odds[level]) < 0) ?? 'far';
        }),
      );
    const count = (into: Map<Pattern, number>, pattern: Pattern) => into.set(pattern, (into.get(pattern) ?? 0) + 1);
    for (let i = 0; i < pairs; i++) count(counts, draw(random() < same));
    for (let i = 0; i < pairs; i++) count(unrelated, draw(false));
    return { counts, unrelated };
  }

  test('expectation-maximisation recovers the parameters that pairs were drawn from', () => {
    const start = startingModel('company', 2_000);
    const odds = (exact: number, near: number) => ({ exact, near, far: 1 - exact - near });
    const truth: LikenessModel = {
      ...start,
      fields: [
        { field: 'name', same: odds(0.55, 0.35), unrelated: odds(0.02, 0.06) },
        { field: 'domain', same: odds(0.6, 0.1), unrelated: odds(0.01, 0.02) },
        { field: 'phone', same: odds(0.5, 0.1), unrelated: odds(0.01, 0.01) },
        { field: 'country', same: odds(0.9, 0.02), unrelated: odds(0.3, 0.02) },
      ],
    };
    const { counts, unrelated } = planted(truth, 40_000, 0.3);
    const learned = estimateModel(start, {
      records: 2_000,
      candidates: counts,
      random: unrelated,
      same: new Map(),
      different: new Map(),
    });
    learned.fields.forEach((field, index) => {
      for (const level of LEVELS) {
        expect(field.same[level]).toBeCloseTo(truth.fields[index]!.same[level], 1);
        expect(field.unrelated[level]).toBeCloseTo(truth.fields[index]!.unrelated[level], 1);
      }
    });
    expect((learned.sameShare * 2_000 * 1_999) / 2 / 40_000).toBeCloseTo(0.3, 1);
    expect(learned.learned).toEqual({ pairs: 40_000, decisions: 0 });
  });

  test('decisions of people move what they are about', () => {
    const observed = {
      records: forms.length,
      candidates: countPatterns(new BlockIndex(forms).pairs(), forms),
      random: countPatterns(spreadPairs(forms.length, 2_000), forms),
      same: new Map<Pattern, number>(),
      different: new Map<Pattern, number>(),
    };
    const before = estimateModel(model, observed);
    const married = { ...ada, last_name: 'Quennell' };
    const pattern = patternOf(agreements(form(ada), form(married)).map(({ level }) => level));
    const after = estimateModel(model, { ...observed, same: new Map([[pattern, 40]]) });
    expect(like(ada, married, after).bits).toBeGreaterThan(like(ada, married, before).bits);
    expect(after.learned!.decisions).toBe(40);
  });

  test('nothing to learn from leaves the starting values', () => {
    const none = new Map<Pattern, number>();
    const learned = estimateModel(model, { records: 0, candidates: none, random: none, same: none, different: none });
    expect(learned.fields.map(({ same }) => same)).toEqual(model.fields.map(({ same }) => same));
    expect(learned.learned).toBeNull();
  });
});

test.each([
  [{ accept: 0.9, ask: 0.5 }, []],
  [{ accept: 0.5, ask: 0.5 }, []],
  [{ accept: 0.4, ask: 0.5 }, ['thresholds-cross']],
  [{ accept: 1.2, ask: 0.5 }, ['threshold-outside']],
  [{ accept: 0.9, ask: 0 }, ['threshold-outside']],
  [{ accept: NaN, ask: 0.5 }, ['threshold-outside']],
])('thresholds %j are found to be %j', (thresholds, codes) => {
  expect(checkThresholds(thresholds, '/').map(({ code }) => code)).toEqual(codes);
});

describe('a model for more records', () => {
  const few = startingModel('contact');
  const grown = grownModel(few, { records: 20_000, common: { family: { smith: 0.02 } }, sampled: 4_000 });

  test('takes two records for one less often, and a common name for less of a sign', () => {
    const smith = { first_name: 'Ada', last_name: 'Smith', phone: '+447700900318' };
    const before = like(smith, smith, few);
    const after = like(smith, smith, grown);
    expect(after.probability).toBeLessThan(before.probability);
    const family = (likened: typeof after) => likened.shares.find(({ of }) => of === 'family')!.bits;
    expect(family(after)).toBeLessThan(family(before));
    expect(grown.sameShare).toBeCloseTo(few.sameShare / 100, 9);
  });

  test('takes a value that the sample does not have for no rarer than the sample can tell', () => {
    const rare = (sampled: number) =>
      like(ada, ada, { ...grown, sampled }).shares.find(({ of }) => of === 'family')!.bits;
    expect(rare(400)).toBeLessThan(rare(4_000));
  });
});

test('what lies between the thresholds is asked', () => {
  const at = (probability: number, pattern = 'eeffe--') =>
    verdictOn({ probability, pattern }, 'contact', { accept: 0.9, ask: 0.5 });
  expect([0.95, 0.9, 0.7, 0.5, 0.49].map((one) => at(one))).toEqual(['accept', 'accept', 'ask', 'ask', 'different']);
  expect(at(0.99, 'feeee--')).toBe('ask');
  expect(at(0.99, 'efeee--')).toBe('ask');
  expect(at(0.99, 'nn-ee--')).toBe('ask');
  expect(at(0.99, 'nneee--')).toBe('accept');
  expect(at(0.99, 'en-ee--')).toBe('ask');
  expect(at(0.99, 'enfef--')).toBe('accept');
});

test('in one company, two surnames written almost the same are asked about but where a mailbox says they are one', () => {
  const firm = { companies: [{ id: 'firm', values: { name: 'Alderbrook Academy', domain: 'alderbrook.example' } }] };
  const peter = (family: string, email: string) =>
    comparedForm(
      'contact',
      { first_name: 'Peter', last_name: family, email: `${email}@alderbrook.example`, phone: '+441632960441' },
      firm,
    );
  const verdict = (family: string, email: string) =>
    verdictOn(likeness(model, peter('Feldenrath', 'peter.feldenrath'), peter(family, email)), 'contact', {
      accept: 0.5,
      ask: 0.1,
    });
  expect(verdict('Weidenrath', 'peterweidenrath')).toBe('ask');
  expect(verdict('Feldenraht', 'peter.feldenrath')).toBe('accept');
});

test.each<[string, FieldValues, FieldValues, Partial<Record<string, string>>]>([
  [
    'an initial that fits is a sign',
    { first_name: 'John', last_name: 'Copton' },
    { first_name: 'J.', last_name: 'Copton' },
    { given: 'near', family: 'exact' },
  ],
  [
    'an initial that does not fit speaks against it',
    { first_name: 'John', last_name: 'Copton' },
    { first_name: 'K.', last_name: 'Copton' },
    { given: 'far' },
  ],
  [
    'two well-known names a letter apart are two people',
    { first_name: 'Mary', last_name: 'Kelwood' },
    { first_name: 'Gary', last_name: 'Kelwood' },
    { given: 'far' },
  ],
  [
    'a letter too few in a rare name is a typing error',
    { first_name: 'Thessaly' },
    { first_name: 'Thesaly' },
    { given: 'near' },
  ],
  [
    'the address goes with the company, and the number does not',
    { last_name: 'Brown', email: 'thomas.brown@ivybridge.example', phone: '+447700900318' },
    { last_name: 'Brown', email: 'thomasb@yewtree.example', phone: '+447700900318' },
    { email: 'missing', phone: 'exact', company: 'far' },
  ],
  [
    'another company, number and address are those of another',
    { last_name: 'Brown', email: 'thomas.brown@ivybridge.example', phone: '+447700900318' },
    { last_name: 'Brown', email: 'thomasb@yewtree.example', phone: '+447700900319' },
    { email: 'far', phone: 'far', company: 'far' },
  ],
  [
    'a private address does not',
    { last_name: 'Brown', email: 'thomas.brown@ivybridge.example' },
    { last_name: 'Brown', email: 'tb19@gmail.com' },
    { email: 'far', company: 'missing' },
  ],
])('%s', (_, one, other, expected) => {
  const levels = agreements(form(one), form(other)).map(({ level }) => level);
  const by = Object.fromEntries(COMPARED_FIELDS.contact.map(({ field }, index) => [field, levels[index]]));
  expect(by).toMatchObject(expected);
});

test('probabilities are said no more certain than they are', () => {
  expect([0.99999, 0.9861, 0.5, 0.0501, 0.0000001].map(percent)).toEqual([
    'over 99.9 %',
    '99 %',
    '50 %',
    '5.0 %',
    'under 0.1 %',
  ]);
});

test('every kind of record is compared in as many ways as it has fields for it', () => {
  for (const kind of ['contact', 'company', 'lead', 'deal'] as const)
    expect(agreements(comparedForm(kind, {}), comparedForm(kind, {}))).toHaveLength(COMPARED_FIELDS[kind].length);
});
