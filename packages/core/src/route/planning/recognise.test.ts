import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { applyDiff } from '../../diff/records-diff';
import type { RecordsState } from '../../diff/record';
import { answer, destination, fill, known, plan, routeOf, submission } from '../../testing/example';
import { checkRoute } from '../checking/check';
import type { MatchRule, RouteDefinition, Write } from '../../definition/route-definition';
import { KnownRecords } from '../../identity/known-records';
import type { KnownRecord } from '../../diff/known-record';
import { planRun } from './plan-run';

const person: Write = {
  as: 'person',
  record: 'contact',
  match: [{ by: 'email' }, { by: 'phone' }],
  fills: [
    fill('first_name', answer('first', 'trim')),
    fill('last_name', answer('last', 'trim')),
    fill('email', answer('email', 'email')),
    fill('phone', answer('phone', 'phone')),
    fill('external_ids', answer('id')),
    fill('job_title', answer('job')),
  ],
};
const open = {
  ...destination,
  fields: destination.fields.map((field) => ({ ...field, required: false })),
};
const by = (...match: MatchRule[]): RouteDefinition => routeOf({ ...person, match });
const withWrite = (change: Partial<Write>): RouteDefinition => routeOf({ ...person, ...change });
const contact = (id: string, values: KnownRecord['values'], more: Partial<KnownRecord> = {}) => ({
  id,
  kind: 'contact' as const,
  values,
  ...more,
});
const ada = { first_name: 'Ada', last_name: 'Weir', email: 'ada@weir.example', phone: '+447700900318' };
const came = { first: 'Ada', last: 'Weir', email: 'ada@weir.example', phone: '+44 7700 900318' };
const run = (route: RouteDefinition, payload: object, ...records: ReturnType<typeof contact>[]) =>
  plan(route, submission(payload as never), known(...records), open);

describe('match rules', () => {
  test('are tried in their order', () => {
    const other = contact('b', { ...ada, email: 'other@weir.example' });
    const planned = run(by({ by: 'email' }, { by: 'phone' }), { ...came, email: 'new@weir.example' }, other);
    expect(planned.writes[0]).toMatchObject({ id: 'b', did: 'change', match: { by: 'phone', key: '+447700900318' } });
  });

  test('know a mailbox again under another tag', () => {
    expect(run(by({ by: 'email' }), { ...came, email: 'ada+fair@weir.example' }, contact('a', ada)).writes[0]!.id).toBe(
      'a',
    );
    const tagged = contact('a', { ...ada, email: 'ada+fair@weir.example' });
    expect(run(by({ by: 'email' }), came, tagged).writes[0]!.id).toBe('a');
  });

  test('hold tags apart where the workspace does', () => {
    const apart = { ...open, mailboxes: { tags: false, points: false } };
    const planned = plan(
      by({ by: 'email' }),
      submission({ ...came, email: 'ada+fair@weir.example' }),
      known(contact('a', ada)),
      apart,
    );
    expect(planned.writes[0]!.did).toBe('create');
  });

  test('do not take a mailbox that several read for a person', () => {
    const info = contact('a', { ...ada, email: 'info@weir.example' });
    const other = run(by({ by: 'email' }), { first: 'Piers', last: 'Vos', email: 'info@weir.example' }, info);
    expect(other.outcome).toBe('write');
    expect(other.writes[0]).toMatchObject({ did: 'create' });
    expect(other.writes[0]!.match.notEnough![0]).toContain('several people read');
    expect(run(by({ by: 'email' }), { ...came, email: 'info@weir.example' }, info).writes[0]!.id).toBe('a');
  });

  describe('of one address that a couple uses', () => {
    const bo = { ...ada, first_name: 'Bo', phone: '+447700900319' };
    const couple = [contact('a', ada), contact('b', bo)];
    const rules = by({ by: 'email' });

    test('make the second where a person said that it is another', () => {
      const planned = planRun(rules, submission({ ...came, first: 'Bo' }), known(contact('a', ada)), {
        destination: open,
        newIds: { person: 'new' },
        answers: { person: { create: true } },
      });
      expect(planned).toMatchObject({ outcome: 'write', writes: [{ id: 'new', did: 'create' }] });
    });

    test('know each by the name from then on, and make a third of another name', () => {
      expect(run(rules, came, ...couple).writes[0]).toMatchObject({ id: 'a' });
      expect(run(rules, { ...came, first: 'Bo' }, ...couple).writes[0]).toMatchObject({ id: 'b' });
      const third = run(rules, { ...came, first: 'Cleo' }, ...couple);
      expect(third.writes[0]).toMatchObject({ did: 'create' });
      expect(third.writes[0]!.match.notEnough).toEqual([
        'ada@weir.example is used by several people: 2 records of another name have it',
      ]);
    });

    test('still let nobody take the address of one person unasked', () => {
      expect(run(by({ by: 'phone' }), { ...came, first: 'Bo', phone: '' }, contact('a', ada)).reason?.code).toBe(
        'identity-taken',
      );
    });
  });

  test('do not take a number for a person of another name', () => {
    const planned = run(by({ by: 'phone' }), { first: 'Piers', last: 'Vos', phone: came.phone }, contact('a', ada));
    expect(planned.writes[0]).toMatchObject({ did: 'create', match: { by: null } });
  });

  test('know a record by its id elsewhere', () => {
    const planned = run(
      by({ by: 'external-id' }),
      { ...came, id: 'shop:7' },
      contact('a', { external_ids: ['shop:7'] }),
    );
    expect(planned.writes[0]!.match).toMatchObject({ by: 'external-id', key: 'shop:7' });
  });

  test('know a person by name within one company only', () => {
    const firm: Write = {
      as: 'firm',
      record: 'company',
      match: [{ by: 'name' }],
      fills: [fill('name', answer('company'))],
    };
    const route = routeOf(firm, { ...person, links: ['firm'], match: [{ by: 'name' }] });
    const records = [
      { id: 'f', kind: 'company' as const, values: { name: 'Fennwick Academy Ltd' } },
      contact('a', { first_name: 'Ada', last_name: 'Weir' }),
    ];
    const at = (company: string) => {
      const all = known(...records);
      all.learn(
        { created: {}, changed: {}, removed: {}, unlinked: [], linked: [{ from: 'a', to: 'f' }] },
        '2026-01-01T00:00:00.000Z',
      );
      return plan(route, submission({ first: 'Ada', last: 'Weir', company }), all, open);
    };
    expect(at('The Fennwick Academy').writes.map(({ id }) => id)).toEqual(['f', 'a']);
    expect(at('Alder Nursery').writes.map(({ did }) => did)).toEqual(['create', 'create']);
  });
});

describe('what then', () => {
  const two = [
    contact('a', { ...ada, email: 'x@weir.example' }),
    contact('b', { ...ada, email: 'y@weir.example', job_title: 'Owner' }, { createdAt: '2026-02-01T00:00:00.000Z' }),
  ];
  const onPhone = (change: Partial<Write>) =>
    run(withWrite({ match: [{ by: 'phone' }], ...change }), { ...came, email: '' }, ...two);

  test.each([
    ['oldest', 'a'],
    ['latest', 'b'],
    ['most-complete', 'b'],
  ] as const)('of several, the %s', (whenSeveral, id) => expect(onPhone({ whenSeveral }).writes[0]!.id).toBe(id));

  test('of several, a person says which', () => {
    const planned = onPhone({ whenSeveral: 'ask' });
    expect(planned).toMatchObject({ outcome: 'hold', reason: { code: 'which-record' } });
    expect(planned.writes[0]!.match.candidates).toEqual([
      { id: 'a', probability: null },
      { id: 'b', probability: null },
    ]);
  });

  test('nothing is written where the route says so', () => {
    expect(onPhone({ whenSeveral: 'skip' }).outcome).toBe('skip');
    expect(run(withWrite({ whenMatched: 'skip' }), came, contact('a', ada)).outcome).toBe('skip');
    expect(run(withWrite({ whenNone: 'skip' }), came).outcome).toBe('skip');
  });

  test('a person is asked on one, and on none', () => {
    expect(run(withWrite({ whenMatched: 'ask' }), came, contact('a', ada)).reason!.code).toBe('which-record');
    expect(run(withWrite({ whenNone: 'ask' }), came).reason!.code).toBe('which-record');
  });

  test('a rule may say otherwise than the write', () => {
    const planned = run(
      by({ by: 'email', whenMatched: 'fill-blanks' }),
      { ...came, first: 'Adelheid' },
      contact('a', ada),
    );
    expect(planned.writes[0]!.fields.find(({ field }) => field === 'first_name')!.why).toBe('fill-blanks');
    const stops = run(
      by({ by: 'email', whenNone: 'skip' }, { by: 'phone' }),
      { ...came, email: 'z@weir.example' },
      contact('a', ada),
    );
    expect(stops.outcome).toBe('skip');
  });

  test('the same address with another surname is asked about where that is wanted', () => {
    const married = { ...came, last: 'Quennell' };
    expect(run(by({ by: 'email', askIf: ['other-surname'] }), married, contact('a', ada))).toMatchObject({
      outcome: 'hold',
      reason: { text: 'The contact with ada@weir.example has another surname. Say whether it is the same.' },
    });
    expect(run(by({ by: 'email' }), married, contact('a', ada)).outcome).toBe('write');
  });

  test.each([
    [{ record: 'a' }, { id: 'a', did: 'change', match: { by: 'person' } }],
    [{ create: true }, { did: 'create' }],
    [{ skip: true }, { did: 'none' }],
  ] as const)('a person’s answer %j holds', (given, expected) => {
    const sent = submission({ ...came, email: 'z@weir.example' });
    const planned = planRun(
      withWrite({ match: [{ by: 'phone', whenSeveral: 'ask' }], whenSeveral: 'ask' }),
      sent,
      known(...two),
      {
        destination: open,
        newIds: { person: 'new' },
        answers: { person: given },
      },
    );
    expect(planned.writes[0]).toMatchObject(expected);
  });

  test('an answer that is gone is asked for again', () => {
    const planned = planRun(withWrite({}), submission(came), known(), {
      destination: open,
      newIds: { person: 'new' },
      answers: { person: { record: 'gone' } },
    });
    expect(planned.reason!.code).toBe('which-record');
  });
});

describe('likeness in a route', () => {
  const likely = by({ by: 'email' }, { by: 'likeness', accept: 0.92, ask: 0.35 });
  const stored = contact('a', { ...ada, last_name: 'Thackeray' });

  test('takes the same person with a typing error for the one', () => {
    const planned = run(
      likely,
      { first: 'Ada', last: 'Thackery', phone: came.phone, email: 'ada.t@example.net' },
      stored,
    );
    const [write] = planned.writes;
    expect(write).toMatchObject({ id: 'a', match: { by: 'likeness', found: 1 } });
    const [best] = write!.match.candidates!;
    expect(best!.probability).toBeGreaterThan(0.92);
    expect(best!.shares!.map(({ label }) => label)).toContain('Family name');
  });

  test('asks when it is unsure, and shows why', () => {
    const planned = run(
      likely,
      { first: 'Ada', last: 'Quennell', phone: came.phone, email: 'ada.q@example.net' },
      stored,
    );
    expect(planned.outcome).toBe('hold');
    expect(planned.writes[0]!.match.candidates![0]!.id).toBe('a');
  });

  test('makes a new contact of somebody else', () => {
    expect(run(likely, { first: 'Piers', last: 'Vos', email: 'piers@vos.example' }, stored).writes[0]!.did).toBe(
      'create',
    );
  });

  test.each([
    [{ accept: 0.4, ask: 0.5 }, 'thresholds-cross'],
    [{ accept: 0.9, ask: 0 }, 'threshold-outside'],
  ])('refuses thresholds %j', (thresholds, code) => {
    const problems = checkRoute(by({ by: 'likeness', ...thresholds }), {
      destination: open,
      intakes: [{ key: 'survey', name: 'S' }],
    } as never);
    expect(problems.map((problem) => problem.code)).toContain(code);
  });
});

describe('deals', () => {
  const sale = (place: object): RouteDefinition =>
    routeOf(person, {
      as: 'sale',
      record: 'deal',
      links: ['person'],
      place: {
        pipeline: { parts: [{ text: 'new-builds' }] },
        stage: { parts: [{ text: 'enquiry' }] },
        again: 'update',
        ...place,
      },
      fills: [fill('name', answer('subject')), fill('message', answer('job'))],
    });
  const withDeal = (createdAt: string) => {
    const all = known(contact('a', ada), {
      id: 'd',
      kind: 'deal',
      values: { name: 'Palm house', pipeline: 'new-builds', stage: 'enquiry', status: 'open' },
      createdAt,
    });
    all.learn({ created: {}, changed: {}, removed: {}, unlinked: [], linked: [{ from: 'd', to: 'a' }] }, createdAt);
    return all;
  };
  const did = (place: object, subject: string, createdAt: string) =>
    plan(sale(place), submission({ ...came, subject }), withDeal(createdAt), open).writes[1]!.did;

  test('are the same within some days', () => {
    expect(did({ within: 30 }, 'Palm house', '2026-03-01T00:00:00.000Z')).toBe('keep');
    expect(did({ within: 5 }, 'Palm house', '2026-03-01T00:00:00.000Z')).toBe('create');
  });

  test('are the same with one subject, however it is written', () => {
    expect(did({ sameField: 'name' }, ' palm  HOUSE ', '2026-03-01T00:00:00.000Z')).not.toBe('create');
    expect(did({ sameField: 'name' }, 'Orchid house', '2026-03-01T00:00:00.000Z')).toBe('create');
  });
});

describe('one person in many submissions', () => {
  const arrivals = fc.constantFrom(
    { first: 'Ada', last: 'Weir', email: 'ada@weir.example' },
    { first: 'Ada', last: 'Weir', phone: '+44 7700 900318' },
    { first: 'Ada', last: 'Weir', email: 'ada@weir.example', phone: '+44 7700 900318' },
    { first: 'Ada', last: 'Weir', email: 'a.weir@example.net', phone: '+44 7700 900318' },
    { first: 'Ada', last: 'Weir', email: 'a.weir@example.net' },
    { first: 'Piers', last: 'Vos', email: 'piers@vos.example', phone: '+44 7700 900318' },
    { first: 'Piers', last: 'Vos', phone: '+44 7700 900318' },
    { first: 'Ada', last: 'Weir', email: 'ada+fair@weir.example' },
  );

  /** Routes one after the other; answers who there is at the end, each by everything that is known of them. */
  function peopleAfter(payloads: readonly object[]): string[] {
    const all = new KnownRecords();
    let state: RecordsState = { records: {}, links: [] };
    payloads.forEach((payload, index) => {
      const at = `2026-03-${String(index + 1).padStart(2, '0')}T00:00:00.000Z`;
      const planned = plan(withWrite({}), submission(payload as never, { receivedAt: at }), all, open);
      state = applyDiff(planned.diff, state);
      all.learn(planned.diff, at);
    });
    return Object.values(state.records)
      .map(({ values }) =>
        JSON.stringify([values.last_name, [...((values.emails as string[]) ?? [])].sort(), values.phones ?? []]),
      )
      .sort();
  }

  test('become the same people whatever the order of arrival', () => {
    fc.assert(
      fc.property(
        fc
          .array(arrivals, { minLength: 1, maxLength: 7 })
          .chain((payloads) =>
            fc.tuple(fc.constant(payloads), fc.shuffledSubarray(payloads, { minLength: payloads.length })),
          ),
        ([payloads, shuffled]) => expect(peopleAfter(shuffled)).toEqual(peopleAfter(payloads)),
      ),
      { numRuns: 200 },
    );
  });

  test('address, then number, then both: one contact', () => {
    const [one, two, both] = [
      { first: 'Ada', last: 'Weir', email: 'ada@weir.example' },
      { first: 'Ada', last: 'Weir', phone: '+44 7700 900318' },
      { first: 'Ada', last: 'Weir', email: 'ada@weir.example', phone: '+44 7700 900318' },
    ];
    expect(peopleAfter([one, two, both])).toHaveLength(1);
  });
});
