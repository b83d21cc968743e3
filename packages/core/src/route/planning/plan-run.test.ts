import { Counters } from '../../assignment/counters';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { FieldValues, RecordsState } from '../../diff/record';
import { applyDiff, reverseDiff } from '../../diff/records-diff';
import { identityKeysOf, identityKeyText } from '../../identity/keys';
import type { Submission } from '../../payload/submission';
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
  text,
} from '../../testing/example';
import { accountOf, outcomeText } from '../telling/account';
import type { Fill, RouteDefinition, Write } from '../../definition/route-definition';
import { KnownRecords } from '../../identity/known-records';
import { lookupsFor } from './lookups';
import type { Plan } from './plan';
import { planRun } from './plan-run';

const createdOf = (from: Plan, as: string) =>
  from.diff.created[from.writes.find((write) => write.as === as)!.id!]?.values;
const write = (from: Plan, as: string) => from.writes.find((one) => one.as === as)!;

/** The enquiry of somebody unknown, and what is known after it was written. */
function afterFirst(first = submission(maren)) {
  const firstPlan = plan(route, first);
  const records = known();
  records.learn(firstPlan.diff, first.receivedAt);
  return { firstPlan, records };
}

describe('an enquiry of somebody unknown', () => {
  const first = plan(route, submission(maren));

  test('makes a company, a contact and a deal, finished and linked', () => {
    expect(createdOf(first, 'firm')).toEqual({
      name: 'Fennwick Academy',
      domain: 'fennwick.example',
      domains: ['fennwick.example'],
      source: 'spring-newsletter',
    });
    expect(createdOf(first, 'person')).toMatchObject({
      first_name: 'Maren',
      last_name: 'Oduya',
      full_name: 'Maren Oduya',
      email: 'm.oduya@fennwick.example',
      emails: ['m.oduya@fennwick.example'],
      phone: '+447700900318',
      source: 'spring-newsletter',
    });
    expect(createdOf(first, 'sale')).toMatchObject({
      name: 'Fennwick Academy, Maren Oduya',
      bays: 6,
      pipeline: 'new-builds',
      stage: 'enquiry',
      status: 'open',
      stage_since: '2026-03-14T09:30:00.000Z',
    });
    const [firmId, personId, saleId] = first.writes.map(({ id }) => id!);
    expect(first.diff.linked).toEqual([
      { from: personId, to: firmId },
      { from: saleId, to: personId },
      { from: saleId, to: firmId },
    ]);
  });

  test('records a touch of each record', () => {
    expect(first.touches.map(({ record, source, channel, medium }) => [record, source, channel, medium])).toEqual([
      [write(first, 'firm').id, 'spring-newsletter', 'e-mail', 'email'],
      [write(first, 'person').id, 'spring-newsletter', 'e-mail', 'email'],
      [write(first, 'sale').id, 'spring-newsletter', 'e-mail', 'email'],
    ]);
  });

  test('traces each value to its answer and its steps', () => {
    const trace = write(first, 'person').fields.find(({ field }) => field === 'first_name')!.trace!;
    expect(trace).toEqual({
      parts: [{ part: { answer: 'first' }, text: 'MAREN' }],
      steps: [
        { use: 'trim', before: 'MAREN', after: 'MAREN' },
        { use: 'name-case', before: 'MAREN', after: 'Maren' },
      ],
    });
  });

  test('is told in sentences', () => {
    const told = accountOf(first, submission(maren), { destination, intake: 'Site survey request' }).map(
      ({ text: words }) => words,
    );
    expect(told).toContain('Created a contact: none has m.oduya@fennwick.example');
    expect(told).toContain('Placed in New builds, Enquiry');
    expect(outcomeText(first)).toBe('New company, new contact, new deal');
  });
});

describe('a second enquiry', () => {
  test('makes neither a second contact nor a second open deal', () => {
    const { records } = afterFirst();
    const second = plan(
      route,
      submission({ ...maren, email: 'm.oduya@FENNWICK.example', bays: 8 }, { receivedAt: '2026-03-20T08:00:00.000Z' }),
      records,
    );
    expect(second.diff.created).toEqual({});
    expect(write(second, 'person').match).toEqual({ by: 'email', key: 'm.oduya@fennwick.example', found: 1 });
    expect(write(second, 'sale').match.by).toBe('open-deal');
    expect(second.diff.changed[write(second, 'sale').id!]!.fields).toEqual({ bays: { before: 6, after: 8 } });
  });

  test('keeps the first source and adds a touch', () => {
    const { records } = afterFirst();
    const second = plan(
      route,
      submission(maren, { visit: { utm_source: 'show-stand' }, receivedAt: '2026-03-20T08:00:00.000Z' }),
      records,
    );
    expect(write(second, 'person').fields.find(({ field }) => field === 'source')).toMatchObject({
      did: 'keep',
      why: 'if-blank',
      after: 'spring-newsletter',
      offered: 'show-stand',
    });
    expect(second.touches.every(({ source }) => source === 'show-stand')).toBe(true);
  });

  test.each<[string, string[], Partial<Fill>, string]>([
    [
      'keeps what a person typed, where the route says so',
      ['phone'],
      { overwrite: 'unless-typed' },
      'keep unless-typed',
    ],
    ['replaces what came by itself', [], { overwrite: 'unless-typed' }, 'write null'],
    ['replaces what a person typed, where nothing is said', ['phone'], {}, 'write null'],
  ])('%s', (_, typed, more, wanted) => {
    const phone = fill('phone', answer('phone', 'phone'), more);
    const definition = routeOf({ ...person, links: [], fills: [fill('email', answer('email', 'email')), phone] });
    const contact = { email: 'ada@weir.example', phone: '+441134960999' };
    const records = known({ id: 'c', kind: 'contact', values: contact, typed });
    const second = plan(definition, submission({ email: 'ada@weir.example', phone: '07700 900318' }), records);
    const trace = write(second, 'person').fields.find(({ field }) => field === 'phone')!;
    expect(`${trace.did} ${trace.why}`).toBe(wanted);
  });

  const again = (rule: NonNullable<Write['place']>['again'], deal: FieldValues) => {
    const records = new KnownRecords(
      [
        {
          id: 'c',
          kind: 'contact',
          values: { email: 'm.oduya@fennwick.example', emails: ['m.oduya@fennwick.example'], last_name: 'Oduya' },
          createdAt: '2026-01-01',
          writtenAt: {},
        },
        {
          id: 'd',
          kind: 'deal',
          values: { name: 'Old', pipeline: 'new-builds', ...deal },
          createdAt: '2026-01-02',
          writtenAt: {},
        },
      ],
      [{ from: 'd', to: 'c' }],
    );
    return write(
      plan(routeOf(person, { ...sale, place: { ...sale.place!, again: rule } }), submission(maren), records),
      'sale',
    );
  };

  test.each<[NonNullable<Write['place']>['again'], string, string, Partial<Plan['writes'][number]>]>([
    [
      'update',
      'open',
      'design',
      { id: 'd', did: 'change', place: { pipeline: 'new-builds', stage: 'design', did: 'stays' } },
    ],
    ['update', 'won', 'won', { did: 'create' }],
    ['new', 'open', 'design', { did: 'create' }],
    [
      'new-if-closed',
      'open',
      'design',
      { id: 'd', did: 'keep', place: { pipeline: 'new-builds', stage: 'design', did: 'left' } },
    ],
    ['new-if-closed', 'won', 'won', { did: 'create' }],
    ['leave', 'open', 'design', { id: 'd', did: 'keep' }],
    ['leave', 'won', 'won', { id: 'd', did: 'keep' }],
  ])('with “%s” and a deal that is %s in %s', (rule, status, stage, outcome) => {
    expect(again(rule, { status, stage })).toMatchObject(outcome);
  });

  test('moves a deal forward, and back only where that is allowed', () => {
    const place = { pipeline: text('new-builds'), again: 'update' as const };
    const move = (from: string, to: string, backwards: boolean) => {
      const records = new KnownRecords(
        [
          {
            id: 'c',
            kind: 'contact',
            values: { email: 'm.oduya@fennwick.example' },
            createdAt: '2026-01-01',
            writtenAt: {},
          },
          {
            id: 'd',
            kind: 'deal',
            values: { name: 'Old', pipeline: 'new-builds', stage: from, status: 'open', stage_since: '2026-01-02' },
            createdAt: '2026-01-02',
            writtenAt: {},
          },
        ],
        [{ from: 'd', to: 'c' }],
      );
      return write(
        plan(routeOf(person, { ...sale, place: { ...place, stage: text(to), backwards } }), submission(maren), records),
        'sale',
      ).place;
    };
    expect(move('enquiry', 'design', false)).toMatchObject({ stage: 'design', did: 'moved' });
    expect(move('design', 'enquiry', false)).toMatchObject({ stage: 'design', did: 'stays' });
    expect(move('design', 'enquiry', true)).toMatchObject({ stage: 'enquiry', did: 'moved' });
  });
});

describe('values that compete', () => {
  const stored = {
    id: 'c',
    kind: 'contact' as const,
    values: {
      email: 'm.oduya@fennwick.example',
      emails: ['m.oduya@fennwick.example'],
      last_name: 'Oduya',
      full_name: 'Oduya',
      phone: '+447700900111',
      phones: ['+447700900111'],
    },
  };
  const only = (more: Partial<Write> = {}) => routeOf({ ...person, links: [], ...more });
  const phone = (from: Plan) => write(from, 'person').fields.find(({ field }) => field === 'phone');

  test('the submission that arrived later wins, not the run that happened later', () => {
    const late = known({ ...stored, writtenAt: { phone: '2026-04-01T00:00:00.000Z' } });
    expect(phone(plan(only(), submission(maren), late))).toMatchObject({
      did: 'keep',
      why: 'later',
      after: '+447700900111',
    });
    const early = known({ ...stored, writtenAt: { phone: '2026-02-01T00:00:00.000Z' } });
    expect(phone(plan(only(), submission(maren), early))).toMatchObject({ did: 'write', after: '+447700900318' });
  });

  test('all phones are kept when another comes first', () => {
    expect(plan(only(), submission(maren), known(stored)).diff.changed.c!.fields.phones!.after).toEqual([
      '+447700900318',
      '+447700900111',
    ]);
  });

  test('fill blanks writes only blanks', () => {
    const filled = plan(only({ whenMatched: 'fill-blanks' }), submission(maren), known(stored));
    expect(phone(filled)).toMatchObject({ did: 'keep', why: 'fill-blanks' });
    expect(filled.diff.changed.c!.fields.first_name!.after).toBe('Maren');
  });

  test('leave writes nothing, and still records the touch', () => {
    const left = plan(only({ whenMatched: 'leave' }), submission(maren), known(stored));
    expect(left.diff.changed).toEqual({});
    expect(left.touches).toHaveLength(1);
  });

  test('a blank leaves, clears or fails as the fill says', () => {
    const blank = { ...maren, phone: '' };
    const fills = (ifEmpty: 'leave' | 'clear' | 'fail') =>
      only({
        fills: [
          fill('email', answer('email')),
          fill('last_name', answer('last', 'name-case')),
          fill('phone', answer('phone'), { ifEmpty }),
        ],
      });
    expect(plan(fills('leave'), submission(blank), known(stored)).diff.changed).toEqual({});
    expect(plan(fills('clear'), submission(blank), known(stored)).diff.changed.c!.fields.phone!.after).toBeNull();
    expect(plan(fills('fail'), submission(blank), known(stored))).toMatchObject({
      outcome: 'fail',
      reason: { code: 'required-blank' },
    });
  });
});

describe('a run that writes nothing', () => {
  test.each<[string, Plan['outcome'], Parameters<typeof plan>[0], FieldValues]>([
    ['required-blank', 'fail', route, { first: 'Ada', last: 'Weir', email: 'not an address' }],
    ['required-blank', 'fail', route, { first: 'Ada', last: 'Weir', email: `${'a'.repeat(290)}@x.example` }],
    [
      'unknown-stage',
      'fail',
      routeOf(person, { ...sale, links: ['person'], place: { ...sale.place!, stage: text('gone') } }),
      maren as unknown as FieldValues,
    ],
    [
      'unknown-pipeline',
      'fail',
      routeOf(person, { ...sale, links: ['person'], place: { ...sale.place!, pipeline: text('gone') } }),
      maren as unknown as FieldValues,
    ],
    [
      'unknown-field',
      'fail',
      routeOf({ ...person, fills: [...person.fills, fill('gone', text('x'))] }),
      maren as unknown as FieldValues,
    ],
    ['nothing-to-write', 'skip', routeOf(person), {}],
    ['nothing-to-write', 'skip', routeOf({ ...person, whenNone: 'skip' }), maren as unknown as FieldValues],
  ])('says %s and ends %s', (code, outcome, definition, payload) => {
    const stopped = plan(definition, submission(payload as never));
    expect(stopped).toMatchObject({
      outcome,
      reason: { code },
      diff: { created: {}, changed: {}, linked: [] },
      touches: [],
    });
    expect(stopped.reason!.text).toMatch(/^[A-Z].*\.$/s);
  });

  test('says that an identity is taken where the route does not recognise by it', () => {
    const records = known({
      id: 'c',
      kind: 'contact',
      values: { email: 'm.oduya@fennwick.example', emails: ['m.oduya@fennwick.example'] },
    });
    expect(plan(routeOf({ ...person, match: [] }), submission(maren), records).reason?.code).toBe('identity-taken');
  });
});

test('what does not fit its field is told, and the rest is written', () => {
  const told = plan(route, submission({ ...maren, bays: 'a few', growing: 'Rooftop café' }));
  expect(told.outcome).toBe('write');
  expect(told.problems.map(({ code }) => code)).toEqual(['value-does-not-fit', 'value-does-not-fit']);
  expect(createdOf(told, 'sale')!.bays).toBeUndefined();
});

test('a company of which nothing was given is not written, and nothing is linked to it', () => {
  const alone = plan(route, submission({ ...maren, company: '', email: 'maren@gmail.com' }));
  expect(write(alone, 'firm').did).toBe('none');
  expect(createdOf(alone, 'sale')!.name).toBe('Maren Oduya');
  expect(alone.diff.linked).toHaveLength(1);
});

test('a company without a name is called by its domain', () => {
  expect(createdOf(plan(routeOf(firm), submission({ email: 'ada@weir.example' })), 'firm')).toMatchObject({
    name: 'weir.example',
    domain: 'weir.example',
  });
});

test('names and messages in any script come through whole', () => {
  const names = { first: 'علي', last: 'שלום 👩‍🌾', email: 'ali@weir.example', company: 'a\0b\ud800' };
  const any = plan(route, submission(names));
  expect(createdOf(any, 'person')).toMatchObject({ full_name: 'علي שלום 👩‍🌾' });
  expect(createdOf(any, 'firm')!.name).toBe('ab\ufffd');
});

test('lookups ask for the keys of every write and for deals', () => {
  expect(lookupsFor(route, submission(maren), destination)).toEqual({
    keys: [
      { record: 'company', kind: 'domain', value: 'fennwick.example' },
      { record: 'contact', kind: 'email', value: 'm.oduya@fennwick.example' },
      { record: 'contact', kind: 'mailbox', value: 'm.oduya@fennwick.example' },
    ],
    deals: true,
    blocks: [],
    counters: [],
    sought: [],
  });
});

describe('whose turn it is in a team', () => {
  const where = {
    ...destination,
    fields: destination.fields.map((field) =>
      field.key === 'owner' ? { ...field, options: ['bo', 'ida'].map((key) => ({ key, label: key })) } : field,
    ),
    teams: { north: { name: 'North', people: ['bo', 'ida'] } },
  };
  const owner = { team: 'north' };
  const shared = { ...route, writes: route.writes.map((write) => ({ ...write, owner })) };
  const planned = (turn: number, definition: RouteDefinition = shared) =>
    planRun(definition, submission(maren), known(), {
      destination: where,
      newIds: Object.fromEntries(definition.writes.map(({ as }) => [as, as])),
      counters: new Counters({ 'turn north': turn }),
    });

  test('is asked for before, and is one turn for all that a run writes', () => {
    expect(lookupsFor(shared, submission(maren), where).counters).toEqual(['turn north']);
    for (const [turn, who] of ['bo', 'ida', 'bo'].entries()) {
      const one = planned(turn);
      const owners = Object.values(one.diff.created).map(({ values }) => values.owner);
      expect([new Set(owners), owners.length > 1, one.advance]).toEqual([new Set([who]), true, { 'turn north': 1 }]);
    }
  });

  test('is not taken by a run that writes nothing, or that gives to nobody', () => {
    const never = { of: { answer: 'email' }, test: 'blank' };
    expect(planned(0, { ...shared, onlyWhen: never })).toMatchObject({ outcome: 'skip' });
    expect(planned(0, { ...shared, onlyWhen: never }).advance).toBeUndefined();
    expect(planned(0, route).advance).toBeUndefined();
  });
});

describe('whatever is sent', () => {
  const word = fc.oneof(
    fc.constantFrom(
      '',
      ' ',
      'ADA',
      'ada@weir.example',
      'bob@fennwick.example',
      '07700 900 318',
      '6',
      'a few',
      'Teaching garden',
    ),
    fc.string({ unit: 'binary', maxLength: 20 }),
    fc.integer(),
    fc.constant(null),
    fc.array(fc.string(), { maxLength: 2 }),
  );
  const payload = fc.record(
    { first: word, last: word, email: word, phone: word, company: word, bays: word, growing: word },
    { requiredKeys: [] },
  );
  const at = fc.constantFrom('2026-03-14T09:30:00.000Z', '2026-02-01T00:00:00.000Z', '2026-05-01T00:00:00.000Z');
  const enquiries = fc.array(fc.record({ payload, at }), { minLength: 1, maxLength: 6 });
  const arrived = ({ payload: sent, at: receivedAt }: { payload: object; at: string }, index: number) =>
    submission(sent as never, { id: `s${index}`, receivedAt });

  test('the same input gives the same plan', () => {
    fc.assert(
      fc.property(payload, (sent) =>
        expect(plan(route, submission(sent as never, { id: 's' }))).toEqual(
          plan(route, submission(sent as never, { id: 's' })),
        ),
      ),
    );
  });

  test('a plan fits the state it was made for, and applied and reversed leaves the state before', () => {
    fc.assert(
      fc.property(enquiries, (several) => {
        let state: RecordsState = { records: {}, links: [] };
        const records = known();
        several.forEach((enquiry, index) => {
          const from = arrived(enquiry, index);
          const { diff } = plan(route, from, records);
          const after = applyDiff(diff, state);
          const back = applyDiff(reverseDiff(diff), after);
          expect(back.records).toEqual(state.records);
          expect(back.links).toHaveLength(state.links.length);
          records.learn(diff, from.receivedAt);
          state = after;
        });
      }),
    );
  });

  /** What a server loads for one submission out of all there is: who has the keys, their deals, and the links around both. */
  function loadedFor(
    from: Submission,
    { records, links }: RecordsState,
    ages: ReadonlyMap<string, string>,
  ): KnownRecords {
    const wanted = new Set(lookupsFor(route, from, destination).keys.map(identityKeyText));
    const found = Object.entries(records).filter(([, { kind, values }]) =>
      identityKeysOf(kind, values).some((key) => wanted.has(identityKeyText(key))),
    );
    const contacts = new Set(found.filter(([, { kind }]) => kind === 'contact').map(([id]) => id));
    const around = links.filter((link) => contacts.has(link.from) || contacts.has(link.to));
    const deals = new Set(around.map((link) => link.from).filter((id) => records[id]?.kind === 'deal'));
    const near = links.filter((link) => around.includes(link) || deals.has(link.from) || deals.has(link.to));
    const ids = [...new Set([...found.map(([id]) => id), ...deals])];
    return new KnownRecords(
      ids.map((id) => ({ id, ...records[id]!, createdAt: ages.get(id)!, writtenAt: {} })),
      near,
    );
  }

  test('what is looked up is enough: the plan is the same as if everything were known', () => {
    fc.assert(
      fc.property(enquiries, (several) => {
        let state: RecordsState = { records: {}, links: [] };
        const ages = new Map<string, string>();
        several.forEach((enquiry, index) => {
          const from = arrived(enquiry, index);
          const everything = new KnownRecords(
            Object.entries(state.records).map(([id, record]) => ({
              id,
              ...record,
              createdAt: ages.get(id)!,
              writtenAt: {},
            })),
            state.links,
          );
          const { diff } = plan(route, from, everything);
          expect(plan(route, from, loadedFor(from, state, ages)).diff).toEqual(diff);
          for (const id in diff.created) ages.set(id, `2026-01-01T00:00:0${index}.000Z`);
          state = applyDiff(diff, state);
        });
      }),
    );
  });

  test('no e-mail and no domain ever has two records, and no contact two open deals in a pipeline', () => {
    fc.assert(
      fc.property(enquiries, (several) => {
        let state: RecordsState = { records: {}, links: [] };
        const records = known();
        several.forEach((enquiry, index) => {
          const from = arrived(enquiry, index);
          const { diff } = plan(route, from, records);
          records.learn(diff, from.receivedAt);
          state = applyDiff(diff, state);
        });
        const all = Object.entries(state.records);
        for (const [kind, key] of [
          ['contact', 'email'],
          ['company', 'domain'],
        ] as const) {
          const found = all.filter(([, record]) => record.kind === kind).flatMap(([, { values }]) => values[key] ?? []);
          expect(new Set(found).size).toBe(found.length);
        }
        for (const [id] of all.filter(([, { kind }]) => kind === 'contact')) {
          const deals = state.links.filter(({ from, to }) => to === id && state.records[from]?.kind === 'deal');
          expect(deals.length).toBeLessThanOrEqual(1);
        }
      }),
    );
  });
});
