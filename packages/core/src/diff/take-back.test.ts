import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { RecordsState } from './record';
import { applyDiff, changesBetween, emptyDiff, isEmptyDiff, type RecordsDiff } from './records-diff';
import { planTakeBack, type PresentRecords } from './take-back';

const present = (state: RecordsState, used: string[] = []): PresentRecords => ({
  values: (id) => state.records[id]?.values,
  links: state.links,
  inUse: (id) => used.includes(id),
});
const made = (id: string, values: Record<string, string>): RecordsDiff => ({
  ...emptyDiff(),
  created: { [id]: { kind: 'contact', values } },
});
const changed = (id: string, field: string, before: string | null, after: string | null): RecordsDiff => ({
  ...emptyDiff(),
  changed: { [id]: { kind: 'contact', fields: { [field]: { before, after } } } },
});
const NOTHING: RecordsState = { records: {}, links: [] };
const after = (state: RecordsState, ...diffs: RecordsDiff[]) => diffs.reduce((so, diff) => applyDiff(diff, so), state);

describe('taking back', () => {
  test('removes what nothing else touched, with its links', () => {
    const run: RecordsDiff = { ...made('a', { name: 'Ada' }), linked: [{ from: 'a', to: 'firm' }] };
    const state = after({ records: { firm: { kind: 'company', values: { name: 'Weir' } } }, links: [] }, run);
    const { diff, left } = planTakeBack([run], present(state));
    expect(left).toEqual([]);
    expect(applyDiff(diff, state)).toEqual({ records: { firm: state.records.firm }, links: [] });
  });

  test.each([
    ['in-use', ['a'], {}],
    ['changed', [], { name: 'Eda' }],
  ])('leaves a record that is %s', (why, used, values) => {
    const run = made('a', { name: 'Ada' });
    const state: RecordsState = { records: { a: { kind: 'contact', values: { name: 'Ada', ...values } } }, links: [] };
    const { diff, left } = planTakeBack([run], present(state, used));
    expect(isEmptyDiff(diff)).toBe(true);
    expect(left).toEqual([{ record: 'a', kind: 'contact', field: null, now: null, why }]);
  });

  test('puts back the values that are still the run’s, and tells the others', () => {
    const run: RecordsDiff = {
      ...emptyDiff(),
      changed: {
        a: { kind: 'contact', fields: { phone: { before: '1', after: '2' }, town: { before: null, after: 'Otley' } } },
      },
    };
    const state: RecordsState = {
      records: { a: { kind: 'contact', values: { phone: '3', town: 'Otley' } } },
      links: [],
    };
    const { diff, left } = planTakeBack([run], present(state));
    expect(diff.changed.a!.fields).toEqual({ town: { before: 'Otley', after: null } });
    expect(left).toEqual([{ record: 'a', kind: 'contact', field: 'phone', now: '3', why: 'changed' }]);
  });

  test('of several runs goes from the latest to the first, and stops at what a person changed in between', () => {
    const [first, person, second] = [
      changed('a', 'town', 'Otley', 'Ilkley'),
      changed('a', 'town', 'Ilkley', 'Leeds'),
      changed('a', 'town', 'Leeds', 'York'),
    ];
    const before: RecordsState = { records: { a: { kind: 'contact', values: { town: 'Otley' } } }, links: [] };
    const state = after(before, first, person, second);
    const { diff, left } = planTakeBack([second, first], present(state));
    expect(applyDiff(diff, state).records.a!.values.town).toBe('Leeds');
    expect(left).toMatchObject([{ field: 'town', now: 'Leeds', why: 'changed' }]);
  });

  test('twice does nothing the second time', () => {
    const run = made('a', { name: 'Ada' });
    const state = after(NOTHING, run);
    const once = applyDiff(planTakeBack([run], present(state)).diff, state);
    const again = planTakeBack([run], present(once));
    expect([isEmptyDiff(again.diff), again.left.map(({ why }) => why)]).toEqual([true, ['gone']]);
  });

  test('relinks what a run unlinked, where both ends are there', () => {
    const link = { from: 'a', to: 'firm' };
    const run: RecordsDiff = { ...emptyDiff(), unlinked: [link] };
    const records: RecordsState['records'] = {
      a: { kind: 'contact', values: {} },
      firm: { kind: 'company', values: {} },
    };
    expect(planTakeBack([run], present({ records, links: [] })).diff.linked).toEqual([link]);
    expect(planTakeBack([run], present({ records: { a: records.a! }, links: [] })).diff.linked).toEqual([]);
  });
});

/** Random histories: some steps are the runs that are taken back, the others are people. */
describe('for any history', () => {
  const ids = ['a', 'b', 'c'];
  const value = fc.option(fc.constantFrom('1', '2', '3'), { nil: null });
  const step = fc.record({ id: fc.constantFrom(...ids), field: fc.constantFrom('x', 'y'), value, mine: fc.boolean() });

  function play(steps: { id: string; field: string; value: string | null; mine: boolean }[]) {
    let state: RecordsState = NOTHING;
    const mine: RecordsDiff[] = [];
    const others = new Set<string>();
    /** Who gave each value last; saying the same again changes nothing. */
    const last = new Map<string, { id: string; field: string; mine: boolean; value: string | null }>();
    for (const { id, field, value: next, mine: own } of steps) {
      const known = state.records[id];
      const values = { ...known?.values };
      if (next === null) delete values[field];
      else values[field] = next;
      const fields = changesBetween(known?.values ?? {}, values);
      const diff: RecordsDiff = known
        ? { ...emptyDiff(), changed: Object.keys(fields).length ? { [id]: { kind: 'contact', fields } } : {} }
        : { ...emptyDiff(), created: { [id]: { kind: 'contact', values } } };
      if (isEmptyDiff(diff)) continue;
      state = applyDiff(diff, state);
      last.set(`${id} ${field}`, { id, field, mine: own, value: next });
      if (own) mine.unshift(diff);
      else others.add(id);
    }
    return { state, mine, others: [...others], last: [...last.values()] };
  }

  test('everything by the runs alone leads back to the state before', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 20 }), (steps) => {
        const { state, mine } = play(steps.map((one) => ({ ...one, mine: true })));
        const { diff, left } = planTakeBack(mine, present(state));
        expect(left).toEqual([]);
        expect(applyDiff(diff, state)).toEqual(NOTHING);
      }),
    );
  });

  test('it fits the present state, and never touches a value that others gave last', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 20 }), (steps) => {
        const { state, mine, others, last } = play(steps);
        const { diff } = planTakeBack(mine, present(state, others));
        const back = applyDiff(diff, state);
        for (const { id, field, mine: own, value: given } of last)
          if (!own) expect(back.records[id]?.values[field] ?? null).toBe(given);
      }),
    );
  });
});
