import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { FieldValue, FieldValues, RecordsState } from './record';
import {
  applyDiff,
  changesBetween,
  DiffMisfitError,
  emptyDiff,
  isEmptyDiff,
  reverseDiff,
  splitByRecord,
  squashDiffs,
  stillInForce,
  type RecordsDiff,
} from './records-diff';

const IDS = ['a', 'b', 'c', 'd'];
const value: fc.Arbitrary<FieldValue> = fc.oneof(
  fc.constantFrom('x', 'y', ''),
  fc.integer({ min: 0, max: 3 }),
  fc.boolean(),
  fc.array(fc.constantFrom('p', 'q'), { maxLength: 2 }),
  fc.record({ amount: fc.integer({ min: 0, max: 2 }), currency: fc.constantFrom('GBP', 'EUR') }),
);
const values: fc.Arbitrary<FieldValues> = fc.dictionary(fc.constantFrom('one', 'two', 'three'), value, { maxKeys: 3 });
const link = fc.record({ from: fc.constantFrom(...IDS), to: fc.constantFrom(...IDS) });
const state: fc.Arbitrary<RecordsState> = fc.record({
  records: fc.dictionary(fc.constantFrom(...IDS), fc.record({ kind: fc.constant('contact' as const), values })),
  links: fc.uniqueArray(link, { selector: ({ from, to }) => `${from} ${to}` }),
});

/** Any two states have a diff between them; all diffs that fit a state arise so. */
function between(before: RecordsState, after: RecordsState): RecordsDiff {
  const diff = emptyDiff();
  for (const id of new Set([...Object.keys(before.records), ...Object.keys(after.records)])) {
    const [old, now] = [before.records[id], after.records[id]];
    if (!old) diff.created[id] = now!;
    else if (!now) diff.removed[id] = old;
    else {
      const fields = changesBetween(old.values, now.values);
      if (Object.keys(fields).length) diff.changed[id] = { kind: 'contact', fields };
    }
  }
  const has = (links: RecordsState['links'], one: { from: string; to: string }) =>
    links.some(({ from, to }) => from === one.from && to === one.to);
  diff.linked = after.links.filter((one) => !has(before.links, one));
  diff.unlinked = before.links.filter((one) => !has(after.links, one));
  return diff;
}

/** States are sets: neither the order of links nor of keys counts. */
function tidy({ records, links }: RecordsState): unknown {
  const ordered = Object.fromEntries(Object.entries(records).sort(([a], [b]) => (a < b ? -1 : 1)));
  return { records: ordered, links: links.map(({ from, to }) => `${from} ${to}`).sort() };
}

describe('the laws of diffs', () => {
  test('applying leads from the one state to the other', () => {
    fc.assert(fc.property(state, state, (a, b) => expect(tidy(applyDiff(between(a, b), a))).toEqual(tidy(b))));
  });

  test('reversed and applied, a diff gives the state back', () => {
    fc.assert(
      fc.property(state, state, (a, b) => {
        const diff = between(a, b);
        expect(tidy(applyDiff(reverseDiff(diff), applyDiff(diff, a)))).toEqual(tidy(a));
      }),
    );
  });

  test('reversed twice, a diff is itself', () => {
    fc.assert(
      fc.property(state, state, (a, b) => expect(reverseDiff(reverseDiff(between(a, b)))).toEqual(between(a, b))),
    );
  });

  test('two squashed do what the two do one after the other', () => {
    fc.assert(
      fc.property(state, state, state, (a, b, c) => {
        const squashed = squashDiffs(between(a, b), between(b, c));
        expect(tidy(applyDiff(squashed, a))).toEqual(tidy(c));
      }),
    );
  });

  test('squashing is associative', () => {
    fc.assert(
      fc.property(state, state, state, state, (a, b, c, d) => {
        const [x, y, z] = [between(a, b), between(b, c), between(c, d)];
        const left = squashDiffs(squashDiffs(x, y), z);
        const right = squashDiffs(x, squashDiffs(y, z));
        expect(tidy(applyDiff(left, a))).toEqual(tidy(applyDiff(right, a)));
        expect({ ...left, linked: null, unlinked: null }).toEqual({ ...right, linked: null, unlinked: null });
      }),
    );
  });

  test('a diff and its reverse squash to nothing', () => {
    fc.assert(
      fc.property(state, state, (a, b) =>
        expect(isEmptyDiff(squashDiffs(between(a, b), reverseDiff(between(a, b))))).toBe(true),
      ),
    );
  });

  test('the parts by record squash to the whole', () => {
    fc.assert(
      fc.property(state, state, (a, b) => {
        const diff = between(a, b);
        const whole = [...splitByRecord(diff).values()].reduce(squashDiffs, emptyDiff());
        expect(tidy(applyDiff(whole, a))).toEqual(tidy(b));
      }),
    );
  });
});

test('the part of a diff that still holds is taken back without touching what was changed since', () => {
  fc.assert(
    fc.property(state, state, state, (a, b, c) => {
      const since = (id: string) => c.records[id]?.values;
      const isLinked = (one: RecordsState['links'][number]) =>
        c.links.some(({ from, to }) => from === one.from && to === one.to);
      const held = stillInForce(between(a, b), since, isLinked);
      for (const [id, { fields }] of Object.entries(held.changed)) {
        for (const [field, { after }] of Object.entries(fields)) expect(since(id)![field] ?? null).toEqual(after);
      }
      const back = applyDiff(reverseDiff(held), c);
      for (const id in c.records)
        for (const field in c.records[id]!.values)
          if (!held.changed[id]?.fields[field] && !held.created[id])
            expect(back.records[id]!.values[field]).toEqual(c.records[id]!.values[field]);
      for (const id in held.removed) expect(back.records[id]).toEqual(a.records[id]);
      for (const id in held.created) expect(back.records[id]).toBeUndefined();
    }),
  );
});

describe('a diff that does not fit', () => {
  const here: RecordsState = { records: { a: { kind: 'contact', values: { email: 'old' } } }, links: [] };

  test.each<[string, RecordsDiff]>([
    [
      'changes what holds something else',
      { ...emptyDiff(), changed: { a: { kind: 'contact', fields: { email: { before: 'other', after: 'new' } } } } },
    ],
    ['changes what is not there', { ...emptyDiff(), changed: { b: { kind: 'contact', fields: {} } } }],
    ['creates what exists', { ...emptyDiff(), created: { a: here.records.a! } }],
    ['removes what is not there', { ...emptyDiff(), removed: { b: here.records.a! } }],
    ['undoes a link that is not there', { ...emptyDiff(), unlinked: [{ from: 'a', to: 'b' }] }],
  ])('is refused when it %s', (_, diff) => {
    expect(() => applyDiff(diff, here)).toThrow(DiffMisfitError);
  });
});
