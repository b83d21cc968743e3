import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { FieldValues, Link, RecordsState } from '../diff/record';
import { applyDiff, emptyDiff } from '../diff/records-diff';
import type { KnownRecord } from '../diff/known-record';
import { destination } from '../testing/example';
import { planMerge, type MergeWish } from './plan-merge';
import { planUnmerge } from './plan-unmerge';
import { candidatesFor, ruleFor, surviving, USUAL_MERGE_RULES, type SurvivorshipRule } from '../identity/survivorship';

const record = (id: string, values: FieldValues, more: Partial<KnownRecord> = {}): KnownRecord => ({
  id,
  kind: 'contact',
  values,
  createdAt: `2026-0${id.length}-01T00:00:00.000Z`,
  writtenAt: {},
  ...more,
});
const merge = (records: KnownRecord[], more: Partial<MergeWish> = {}) =>
  planMerge({ records, links: [], rules: USUAL_MERGE_RULES, destination, originOf: () => null, ...more });
const valueOf = (planned: ReturnType<typeof merge>, field: string) =>
  planned.fields.find((one) => one.field === field)!.value;

describe('survivorship', () => {
  const early = { value: 'Smith', records: ['a'], writtenAt: '2026-01-01', origin: 'survey' };
  const middle = { value: 'Smyth-Jones', records: ['b', 'c'], writtenAt: '2026-02-01', origin: 'typed' };
  const late = { value: 'SMITH', records: ['d'], writtenAt: '2026-03-01', origin: null };
  test.each<[SurvivorshipRule, string[] | string]>([
    ['latest', 'SMITH'],
    ['oldest', 'Smith'],
    ['most-complete', 'Smyth-Jones'],
    ['most-frequent', 'Smyth-Jones'],
    ['most-trusted', 'Smith'],
    ['keep-all', ['SMITH', 'Smyth-Jones', 'Smith']],
  ])('%s leaves %j', (rule, value) => {
    expect(surviving(rule, [late, middle, early], ['survey', 'typed'])).toEqual(value);
  });

  test.each([
    [[true, true], true],
    [[true, false], false],
    [[true], true],
    [[], null],
  ])('yes only if all say so: %j leaves %j', (values, value) => {
    const candidates = [...new Set(values)].map((one) => ({ value: one, records: ['a'], writtenAt: '', origin: null }));
    expect(surviving('only-if-all', candidates)).toBe(value);
  });

  test('what a person typed counts as typed, wherever the record came from', () => {
    const typed = record('a', { job_title: 'Owner' }, { typed: ['job_title'] });
    expect(candidatesFor('job_title', [typed], () => 'survey')[0]!.origin).toBe('typed');
  });

  test('a yes is never widened by a merge', () => {
    expect(ruleFor({ key: 'may_write', type: 'yes-no' }, USUAL_MERGE_RULES)).toBe('only-if-all');
  });
});

describe('a merge', () => {
  const one = record('a', {
    first_name: 'Ada',
    last_name: 'Weir',
    full_name: 'Ada Weir',
    email: 'ada@weir.example',
    emails: ['ada@weir.example'],
    source: 'fair',
    tags: ['vip'],
  });
  const two = record('bb', {
    first_name: 'A.',
    last_name: 'Weir',
    full_name: 'A. Weir',
    email: 'ada@fennwick.example',
    emails: ['ada@fennwick.example'],
    phone: '+447700900318',
    phones: ['+447700900318'],
    source: 'newsletter',
    tags: ['grower'],
  });

  test('keeps the oldest record, all its addresses and tags, and its first source', () => {
    const planned = merge([two, one]);
    expect(planned.survivor).toBe('a');
    expect(planned.absorbed).toEqual(['bb']);
    expect(valueOf(planned, 'emails')).toEqual(['ada@fennwick.example', 'ada@weir.example']);
    expect(valueOf(planned, 'phone')).toBe('+447700900318');
    expect(valueOf(planned, 'source')).toBe('fair');
    expect(valueOf(planned, 'full_name')).toBe('Ada Weir');
    expect(new Set(valueOf(planned, 'tags') as string[])).toEqual(new Set(['vip', 'grower']));
  });

  test('takes a name whole from one record', () => {
    const married = record('bb', { first_name: 'Adelheid', last_name: 'Vos', full_name: 'Adelheid Vos' });
    const planned = merge([one, married]);
    expect(valueOf(planned, 'full_name')).toBe('Adelheid Vos');
    expect(valueOf(planned, 'first_name')).toBe('Adelheid');
  });

  test('obeys what a person chose', () => {
    const planned = merge([one, two], { survivor: 'bb', chosen: { email: 'ada@weir.example', phone: null } });
    expect(planned.survivor).toBe('bb');
    expect(valueOf(planned, 'email')).toBe('ada@weir.example');
    expect(valueOf(planned, 'phone')).toBeNull();
    expect(planned.fields.find(({ field }) => field === 'email')!.rule).toBe('chosen');
  });

  test('moves every link once, and drops those between the two', () => {
    const links: Link[] = [
      { from: 'bb', to: 'firm' },
      { from: 'a', to: 'firm' },
      { from: 'deal', to: 'bb' },
      { from: 'bb', to: 'a' },
    ];
    const { diff } = merge([one, two], { links });
    expect(diff.linked).toEqual([{ from: 'deal', to: 'a' }]);
    expect(diff.unlinked).toHaveLength(3);
  });

  test('keeps nobody on a list that one of them left', () => {
    const planned = merge([record('a', { lists: ['growers'] }), record('bb', { lists: ['growers', 'schools'] })], {
      left: ['schools'],
    });
    expect(valueOf(planned, 'lists')).toEqual(['growers']);
  });

  test('a deal stays where the surviving deal stands', () => {
    const deal = (id: string, stage: string) =>
      record(id, { name: id, pipeline: 'new-builds', stage, status: 'open' }, { kind: 'deal' });
    expect(valueOf(merge([deal('a', 'enquiry'), deal('bb', 'design')]), 'stage')).toBe('enquiry');
  });
});

describe('unmerging', () => {
  const field = fc.constantFrom('first_name', 'last_name', 'email', 'phone', 'job_title', 'source');
  const values = fc.dictionary(field, fc.constantFrom('x', 'y', 'z')).map((found): FieldValues => ({ ...found }));
  const lists = fc.record({ emails: fc.subarray(['x', 'y', 'z']), tags: fc.subarray(['p', 'q']) });
  const state = fc.tuple(values, lists).map(([plain, { emails, tags }]): FieldValues => ({
    ...plain,
    ...(emails.length ? { emails } : {}),
    ...(tags.length ? { tags } : {}),
  }));
  const link = fc.record({ from: fc.constantFrom('a', 'bb', 'deal'), to: fc.constantFrom('a', 'bb', 'firm') });

  const sorted = ({ records, links }: RecordsState) => ({
    records,
    links: links.map(({ from, to }) => `${from} ${to}`).sort(),
  });

  test('a merge with nothing since is the reverse of it', () => {
    fc.assert(
      fc.property(
        state,
        state,
        fc.uniqueArray(link, { selector: ({ from, to }) => `${from} ${to}` }),
        (one, two, all) => {
          const links = all.filter(({ from, to }) => from !== to);
          const records = [record('a', one), record('bb', two)];
          const before: RecordsState = {
            records: Object.fromEntries(records.map(({ id, kind, values: own }) => [id, { kind, values: own }])),
            links,
          };
          const { diff, survivor } = merge(records, { links });
          const merged = applyDiff(diff, before);
          const own = merged.links.filter(({ from, to }) => from === survivor || to === survivor);
          const back = planUnmerge({ survivor, diff }, [], { record: merged.records[survivor]!, links: own });
          expect(sorted(applyDiff(back, merged))).toEqual(sorted(before));
        },
      ),
    );
  });

  test('gives each record what it had, and what came for it since, whatever came in which order', () => {
    const arrival = fc.record({
      field: fc.constantFrom('first_name', 'job_title', 'phone'),
      value: fc.constantFrom('u', 'v', 'w'),
      to: fc.constantFrom('a', 'bb'),
    });
    fc.assert(
      fc.property(state, state, fc.array(arrival, { maxLength: 6 }), (one, two, arrivals) => {
        const records = [record('a', one), record('bb', two)];
        const { diff, survivor } = merge(records);
        const before: RecordsState = {
          records: Object.fromEntries(records.map(({ id, kind, values: own }) => [id, { kind, values: own }])),
          links: [],
        };
        const now = { ...applyDiff(diff, before).records[survivor]!.values };
        const expected: Record<string, FieldValues> = { a: { ...one }, bb: { ...two } };
        const since = arrivals.flatMap(({ field: key, value, to }) => {
          const had = now[key] ?? null;
          if (had === value) return [];
          now[key] = value;
          expected[to]![key] = value;
          const fields = { [key]: { before: had, after: value } };
          return [{ to, diff: { ...emptyDiff(), changed: { [survivor]: { kind: 'contact' as const, fields } } } }];
        });
        const merged = { records: { [survivor]: { kind: 'contact' as const, values: now } }, links: [] };
        const back = planUnmerge({ survivor, diff }, since, { record: merged.records[survivor]!, links: [] });
        const apart = applyDiff(back, merged).records;
        expect({ a: apart.a!.values, bb: apart.bb!.values }).toEqual(expected);
      }),
    );
  });

  test('what arrived since goes to the record that it belongs to', () => {
    const one = record('a', { full_name: 'Ada Weir', emails: ['ada@weir.example'] });
    const two = record('bb', { full_name: 'Piers Weir', emails: ['piers@weir.example'] });
    const { diff, survivor } = merge([one, two]);
    const merged = applyDiff(diff, { records: { a: one, bb: two }, links: [] }).records.a!.values;
    const since = {
      to: 'bb',
      diff: {
        created: {},
        removed: {},
        changed: {
          a: {
            kind: 'contact' as const,
            fields: {
              emails: { before: merged.emails!, after: [...(merged.emails as string[]), 'p.weir@example.net'] },
              job_title: { before: null, after: 'Buyer' },
            },
          },
        },
        linked: [{ from: 'deal', to: 'a' }],
        unlinked: [],
      },
    };
    const now: FieldValues = { ...merged, job_title: 'Buyer', emails: since.diff.changed.a.fields.emails.after };
    const back = planUnmerge({ survivor, diff }, [since], {
      record: { kind: 'contact', values: now },
      links: [{ from: 'deal', to: 'a' }],
    });
    expect(back.created.bb!.values).toEqual({
      full_name: 'Piers Weir',
      emails: ['piers@weir.example', 'p.weir@example.net'],
      job_title: 'Buyer',
    });
    expect(back.changed.a!.fields.job_title).toEqual({ before: 'Buyer', after: null });
    expect(back.changed.a!.fields.emails!.after).toEqual(['ada@weir.example']);
    expect(back.linked).toEqual([{ from: 'deal', to: 'bb' }]);
    expect(back.unlinked).toEqual([{ from: 'deal', to: 'a' }]);
  });
});
