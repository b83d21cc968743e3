import { describe, expect, test } from '@jest/globals';
import { identityKeysOf, identityKeyText } from '../../identity/keys';
import { blocksOf } from '../../identity/likeness/blocks';
import { comparedForm, type ComparedRecord } from '../../identity/likeness/compared';
import { answer, destination as strict, fill, routeOf, submission } from '../../testing/example';
import { generatePeople, type GeneratedRecord } from '../../testing/people';
import type { MatchRule, RouteDefinition, Write } from '../../definition/route-definition';
import { KnownRecords } from '../../identity/known-records';
import type { KnownRecord } from '../../diff/known-record';
import { lookupsFor } from './lookups';
import { planRun } from './plan-run';
import { worthKnowing } from './sought';

const destination = { ...strict, fields: strict.fields.map((field) => ({ ...field, required: false })) };
const FIELDS = ['first_name', 'last_name', 'email', 'phone', 'country', 'job_title'];
const person = (match: MatchRule[], more: Partial<Write> = {}): Write => ({
  as: 'person',
  record: 'contact',
  match,
  fills: FIELDS.map((field) => fill(field, answer(field))),
  ...more,
});
const firm: Write = {
  as: 'firm',
  record: 'company',
  match: [{ by: 'name' }],
  fills: [fill('name', answer('company')), fill('domain', answer('domain'))],
};
const likeness = (ask: number): MatchRule => ({ by: 'likeness', accept: Math.max(0.85, ask), ask });

const { records } = generatePeople(71, 400);
const here = records.filter((_, index) => index % 3 > 0);
const newcomers = records.filter((_, index) => index % 3 === 0).slice(0, 120);

const known = (id: string, kind: KnownRecord['kind'], values: KnownRecord['values']): KnownRecord => ({
  id,
  kind,
  values,
  createdAt: '2026-01-01T00:00:00.000Z',
  writtenAt: {},
});
const employers = new Map(here.flatMap(({ company }) => (company ? [[company.id, company] as const] : [])));
const firms = [...employers.values()].map(({ id, values }) => known(id, 'company', values));
const contacts = here.map(({ id, values }) => known(id, 'contact', values));
const links = here.flatMap(({ id, company }) => (company ? [{ from: id, to: company.id }] : []));

const compared = new Map<string, ComparedRecord>([
  ...here.map(({ id, values, company }) => {
    return [id, comparedForm('contact', values, { companies: company ? [company] : [] })] as const;
  }),
  ...firms.map(({ id, values }) => [id, comparedForm('company', values)] as const),
]);
const byBlock = new Map<string, string[]>();
for (const [id, form] of compared)
  for (const block of blocksOf(form)) {
    const key = `${form.kind} ${block}`;
    byBlock.set(key, [...(byBlock.get(key) ?? []), id]);
  }
const under = (record: string, block: string) => byBlock.get(`${record} ${block}`) ?? [];

const cameFrom = ({ values, company }: GeneratedRecord) =>
  submission({ ...values, company: company?.values.name, domain: company?.values.domain } as never);

/** What is planned when all are known who share a block, and when only those are that are worth it; and how many of each. */
function bothWays(route: RouteDefinition) {
  let all = 0;
  let worth = 0;
  const plans = newcomers.map(cameFrom).map((came) => {
    const { sought, keys } = lookupsFor(route, came, destination);
    const wanted = new Set(keys.map(identityKeyText));
    const byKey = contacts.filter(({ kind, values }) =>
      identityKeysOf(kind, values).some((key) => wanted.has(identityKeyText(key))),
    );
    const found = new Set(sought.flatMap(({ record, blocks }) => blocks.flatMap((block) => under(record, block))));
    const kept = worthKnowing(sought, { under, compared }, destination.likeness);
    all += found.size;
    worth += kept.size;
    const newIds = { firm: 'new firm', person: 'new person' };
    const planWith = (alike: ReadonlySet<string>) => {
      const which = new Set([...alike, ...byKey.map(({ id }) => id)]);
      const some = contacts.filter(({ id }) => which.has(id));
      const ends = links.filter(({ from }) => which.has(from));
      const around = firms.filter(({ id }) => which.has(id) || ends.some(({ to }) => to === id));
      return planRun(route, came, new KnownRecords([...some, ...around], ends), { destination, newIds });
    };
    return [planWith(found), planWith(kept)] as const;
  });
  return { plans, all, worth };
}

describe('the records worth knowing', () => {
  test.each([
    ['a person by likeness, with a low threshold', routeOf(person([likeness(0.05)]))],
    ['a person by likeness, with a high one', routeOf(person([likeness(0.84)]))],
    ['a person by name, then by likeness', routeOf(person([{ by: 'name' }, likeness(0.3)]))],
    ['a person whose company is recognised first', routeOf(firm, person([likeness(0.2)], { links: ['firm'] }))],
  ])('lead to the plan that all would lead to: %s', (_, route) => {
    const { plans, all, worth } = bothWays(route);
    for (const [withAll, withSome] of plans) expect(withSome).toEqual(withAll);
    expect(plans.filter(([plan]) => plan.writes.some(({ match }) => match.found > 0)).length).toBeGreaterThan(10);
    expect(worth).toBeLessThan(all);
  });

  test('are all that share a block where an earlier write gives a value', () => {
    const route = routeOf(
      firm,
      person([likeness(0.9)], {
        fills: [
          ...FIELDS.filter((field) => field !== 'job_title').map((field) => fill(field, answer(field))),
          fill('job_title', { parts: [{ write: 'firm', field: 'name' }] }),
        ],
      }),
    );
    const { sought } = lookupsFor(route, cameFrom(newcomers[0]!), destination);
    const one = sought.find(({ record }) => record === 'contact')!;
    expect(one.open).toBe('anything');
    const ids = one.blocks.flatMap((block) => under('contact', block));
    expect(worthKnowing([one], { under, compared }, destination.likeness)).toEqual(new Set(ids));
  });
});

test('a copy of known records does not learn what the first one learns', () => {
  const first = new KnownRecords([known('a', 'contact', { full_name: 'Ada Weir', email: 'ada@weir.example' })], []);
  const copy = first.copy();
  first.learn(
    {
      created: { b: { kind: 'contact', values: { email: 'bo@weir.example' } } },
      changed: { a: { fields: { email: { before: 'ada@weir.example', after: 'a.weir@home.example' } } } },
      removed: {},
      linked: [{ from: 'b', to: 'a' }],
      unlinked: [],
    } as never,
    '2026-02-01T00:00:00.000Z',
  );
  const withEmail = (known: KnownRecords, value: string) =>
    known.withKey({ record: 'contact', kind: 'email', value }).map(({ id }) => id);
  expect([copy.get('b'), copy.links(), withEmail(copy, 'ada@weir.example')]).toEqual([undefined, [], ['a']]);
  expect(withEmail(first, 'a.weir@home.example')).toEqual(['a']);
  expect(copy.get('a')!.values.email).toBe('ada@weir.example');
});
