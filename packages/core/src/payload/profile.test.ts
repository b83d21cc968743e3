import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { JsonObject } from '../json';
import {
  emptyProfile,
  PROFILE_LIMITS,
  profileDateOrder,
  profileKind,
  ProfileLearner,
  type Profile,
  type ProfileField,
} from './profile';
import { fieldKind, valueKind, type KindCounts, type ValueKind } from './value-kind';

function profileOf(...payloads: JsonObject[]): Profile {
  const learner = new ProfileLearner(emptyProfile());
  payloads.forEach((payload, index) =>
    learner.learn(payload, `2027-04-${String(index + 1).padStart(2, '0')}T09:00:00.000Z`),
  );
  return learner.profile;
}

describe('a value looks like', () => {
  test.each<[unknown, ValueKind | null]>([
    ['ada@weir.example', 'email'],
    ['07700 900318', 'phone'],
    ['+31 6 12345678', 'phone'],
    ['(020) 7946-0018', 'phone'],
    ['https://weir.example/a', 'web'],
    ['www.weir.example', 'web'],
    ['2027-04-03', 'date'],
    ['03/04/2027', 'date'],
    ['3 April 2027', 'date'],
    ['20270403', 'date'],
    ['2027-04-03T09:30:00Z', 'date-time'],
    ['£48,000', 'money'],
    ['12.500,50 EUR', 'money'],
    ['12', 'whole-number'],
    [12, 'whole-number'],
    [1.5, 'decimal'],
    ['1.234,5', 'decimal'],
    ['yes', 'yes-no'],
    ['Nee', 'yes-no'],
    [true, 'yes-no'],
    ['0', 'whole-number'],
    ['Netherlands', 'country'],
    ['b3f1c9de-0000-4000-8000-123456789abc', 'id'],
    ['lead_8fk20dk29d', 'id'],
    ['Leeds', 'text'],
    ['LS1 4DY', 'text'],
    ['x'.repeat(300), 'long-text'],
    ['two\nlines', 'long-text'],
    [['a', 'b'], 'list'],
    [['a'], 'text'],
    ['  ', null],
    [null, null],
  ])('%j: %s', (value, kind) => expect(valueKind(value as never)).toBe(kind));
});

describe('a field holds', () => {
  test.each<[KindCounts, ValueKind]>([
    [{ email: 95, text: 5 }, 'email'],
    [{ email: 60, text: 40 }, 'text'],
    [{ 'whole-number': 40, decimal: 60 }, 'decimal'],
    [{ 'whole-number': 100 }, 'whole-number'],
    [{ text: 99, 'long-text': 1 }, 'long-text'],
    [{ 'yes-no': 50, text: 50 }, 'text'],
    [{}, 'text'],
  ])('%j: %s', (counts, kind) => expect(fieldKind(counts)).toBe(kind));
});

describe('a profile', () => {
  test('counts how often each field was sent and filled, with its values and times', () => {
    const { submissions, fields } = profileOf(
      { grow: 'moss', note: '' },
      { grow: 'fern' },
      { grow: 'moss', note: 'x' },
    );
    expect(submissions).toBe(3);
    expect(fields.grow).toMatchObject({
      sent: 3,
      filled: 3,
      values: { moss: 2, fern: 1 },
      examples: ['moss', 'fern'],
      pointer: '/grow',
    });
    expect(fields.note).toMatchObject({
      sent: 2,
      filled: 1,
      firstSeen: '2027-04-01T09:00:00.000Z',
      lastSeen: '2027-04-03T09:00:00.000Z',
      lastFilled: '2027-04-03T09:00:00.000Z',
    });
  });

  test('takes what differs only in capitals, spaces and punctuation for one field, and says so', () => {
    const { fields } = profileOf({ 'E-Mail': 'a@b.example' }, { email: 'c@d.example' }, { e_mail: 'e@f.example' });
    expect(Object.keys(fields)).toEqual(['E-Mail']);
    expect(fields['E-Mail']).toMatchObject({ filled: 3, also: ['email', 'e_mail'] });
  });

  test('but two that stand in one submission are two', () => {
    expect(Object.keys(profileOf({ email: 'a', 'e-mail': 'b' }).fields)).toEqual(['email', 'e-mail']);
  });

  test('knows a plain list as a whole and by its first item', () => {
    const { fields } = profileOf({ likes: ['moss', 'fern'] }, { likes: ['moss'] });
    expect(Object.keys(fields)).toEqual(['likes', 'likes[0]']);
    expect(fields.likes).toMatchObject({ filled: 2, values: { moss: 2, fern: 1 }, kinds: { list: 1, text: 1 } });
    expect(profileKind(fields.likes!)).toBe('list');
    expect(fields['likes[0]']).toMatchObject({ filled: 2, values: { moss: 2 } });
  });

  test('keeps the words of a question', () => {
    const { fields } = profileOf({ a: [{ id: 'q1', title: 'How many bays?', value: '4' }] });
    expect(fields['a.how_many_bays']).toMatchObject({ label: 'How many bays?', pointer: '/a/0/value' });
    expect(profileKind(fields['a.how_many_bays']!)).toBe('whole-number');
  });

  test('works out the order of dates from the whole column', () => {
    const order = (...dates: string[]) => profileDateOrder(profileOf(...dates.map((on) => ({ on }))).fields.on!);
    expect(order('03/04/2027', '25/04/2027')).toBe('day-first');
    expect(order('03/04/2027', '04/25/2027')).toBe('month-first');
    expect(order('03/04/2027')).toBeNull();
  });

  test('stays bounded, whatever is sent', () => {
    const wide = Object.fromEntries(Array.from({ length: 5_000 }, (_, n) => [`k${n}`, n]));
    const { fields, beyond } = profileOf(wide, ...Array.from({ length: 300 }, (_, n) => ({ k0: `v${n}` })));
    expect([Object.keys(fields).length, beyond]).toEqual([PROFILE_LIMITS.fields, 5_000 - PROFILE_LIMITS.fields]);
    expect(Object.keys(fields.k0!.values)).toHaveLength(PROFILE_LIMITS.values);
    expect(fields.k0).toMatchObject({ more: true, filled: 301 });
  });

  test('takes names that objects have already', () => {
    const { fields } = profileOf(JSON.parse('{"__proto__": "constructor", "toString": "__proto__"}') as JsonObject);
    expect(Object.keys(fields)).toEqual(['__proto__', 'toString']);
    expect(Object.entries((fields as Record<string, ProfileField>)['toString']!.values)).toEqual([['__proto__', 1]]);
  });

  test('is the same however it is cut into batches, kept as JSON in between', () => {
    const payload = fc.dictionary(
      fc.constantFrom('a', 'A', 'b c', 'b_c', 'd'),
      fc.oneof(fc.string(), fc.integer(), fc.array(fc.string())),
    );
    fc.assert(
      fc.property(fc.array(payload, { maxLength: 12 }), fc.nat(12), (payloads, cut) => {
        const times = payloads.map((_, index) => `2027-04-01T09:00:${String(index).padStart(2, '0')}.000Z`);
        const whole = new ProfileLearner(emptyProfile());
        const first = new ProfileLearner(emptyProfile());
        payloads.forEach((one, index) => whole.learn(one, times[index]!));
        payloads.slice(0, cut).forEach((one, index) => first.learn(one, times[index]!));
        const second = new ProfileLearner(JSON.parse(JSON.stringify(first.profile)) as Profile);
        payloads.slice(cut).forEach((one, index) => second.learn(one, times[cut + index]!));
        expect(JSON.parse(JSON.stringify(second.profile))).toEqual(JSON.parse(JSON.stringify(whole.profile)));
      }),
    );
  });
});
