import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  answer,
  destination,
  fill,
  firm,
  known,
  maren,
  person,
  plan,
  route,
  routeOf,
  sale,
  submission,
} from '../../testing/example';
import type { RecordsDiff } from '../../diff/records-diff';
import { withAnswerRenamed } from '../editing/answers';
import { planFillIn } from './fill-in';
import type { KnownRecords } from '../../identity/known-records';
import type { KnownRecord } from '../../diff/known-record';
import type { Plan } from '../planning/plan';

const LATER = '2026-04-01T00:00:00.000Z';

/** The records as they are after a run, and after somebody changed them. */
function after({ diff }: Plan, change: (record: KnownRecord) => Partial<KnownRecord> = () => ({})): KnownRecords {
  const records = Object.entries(diff.created).map(([id, state]): KnownRecord => ({
    id,
    ...state,
    createdAt: '2026-03-14T09:30:00.000Z',
    writtenAt: {},
  }));
  return known(...records.map((record) => ({ ...record, ...change(record) })));
}

const { last, ...others } = maren;
const renamed = submission({ ...others, surname: last });
const run = plan(route, renamed);
const repaired = withAnswerRenamed(route, 'last', 'surname');
const fieldsOf = (diff: RecordsDiff) => Object.values(diff.changed).map(({ fields }) => fields);

describe('after a mapping was repaired, what an earlier run wrote', () => {
  test('gets the values that were blank, and those that follow from them', () => {
    const diff = planFillIn(repaired, renamed, run.writes, after(run), destination);
    expect(fieldsOf(diff)).toEqual([
      { last_name: { before: null, after: 'Oduya' }, full_name: { before: 'Maren', after: 'Maren Oduya' } },
    ]);
    expect(diff).toMatchObject({ created: {}, removed: {}, linked: [], unlinked: [] });
  });

  test('keeps whatever stands there', () => {
    const changed = after(run, ({ kind, values }) =>
      kind === 'contact' ? { values: { ...values, last_name: 'Quill' } } : {},
    );
    expect(fieldsOf(planFillIn(repaired, renamed, run.writes, changed, destination))).toEqual([]);
  });

  test('stays blank where somebody emptied it since', () => {
    const emptied = after(run, ({ kind }) => (kind === 'contact' ? { writtenAt: { last_name: LATER } } : {}));
    expect(fieldsOf(planFillIn(repaired, renamed, run.writes, emptied, destination))).toEqual([]);
  });

  test('is left alone where the record is gone', () => {
    expect(fieldsOf(planFillIn(repaired, renamed, run.writes, known(), destination))).toEqual([]);
  });

  test('does not take what identifies another record', () => {
    const mapped = routeOf({ ...person, links: [], fills: [fill('email', answer('mail', 'email'))] });
    const own = { id: 'own', kind: 'contact' as const, values: { phone: maren.phone } };
    const other = { id: 'other', kind: 'contact' as const, values: { email: 'ada@weir.example' } };
    const writes = [{ ...run.writes[1]!, id: 'own' }];
    const came = submission({ mail: 'ada@weir.example' });
    expect(fieldsOf(planFillIn(mapped, came, writes, known(own), destination))).toHaveLength(1);
    expect(fieldsOf(planFillIn(mapped, came, writes, known(own, other), destination))).toEqual([]);
  });

  test('needs no field that is gone, and a second time changes nothing', () => {
    const without = { ...destination, fields: destination.fields.filter(({ key }) => key !== 'bays') };
    const diff = planFillIn(repaired, renamed, run.writes, after(run), without);
    const filled = after(run);
    filled.learn(diff, LATER);
    expect(fieldsOf(diff)).toHaveLength(1);
    expect(fieldsOf(planFillIn(repaired, renamed, run.writes, filled, destination))).toEqual([]);
  });
});

test('a route that writes nothing with those names fills in nothing', () => {
  const other = routeOf(
    { ...firm, as: 'house' },
    { ...person, as: 'human', links: [] },
    { ...sale, as: 'trade', links: [] },
  );
  expect(fieldsOf(planFillIn(other, renamed, run.writes, after(run), destination))).toEqual([]);
});

test('filled in afterwards, records hold what a run by the repaired route would have written', () => {
  const word = fc.stringMatching(/^[A-Z][a-z]{1,8}$/);
  const came = fc.record(
    {
      first: word,
      surname: word,
      email: word.map((name) => `${name.toLowerCase()}@weir-glass.example`),
      phone: fc.constantFrom('07700 900318', '07700 900319'),
      company: word,
      bays: fc.integer({ min: 1, max: 40 }),
    },
    { requiredKeys: ['email', 'first'] },
  );
  fc.assert(
    fc.property(came, (payload) => {
      const arrived = submission(payload);
      const first = plan(route, arrived);
      const records = after(first);
      records.learn(planFillIn(repaired, arrived, first.writes, records, destination), LATER);
      const fresh = after(plan(repaired, arrived));
      // A deal keeps the name that it got from what was known of its contact then.
      const valuesOf = (known: KnownRecords) =>
        known
          .all()
          .map(({ kind, values: { name, ...values } }) => ({ kind, ...(kind === 'deal' ? {} : { name }), values }));
      expect(valuesOf(records)).toEqual(valuesOf(fresh));
    }),
    { numRuns: 60 },
  );
});
