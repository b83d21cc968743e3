import { describe, expect, test } from '@jest/globals';
import { destination, known, maren, person, plan, route, routeOf, sale, submission, text } from '../../testing/example';
import { accountOf, outcomeText, type AccountStep } from './account';
import { KnownRecords } from '../../identity/known-records';
import type { Write } from '../../definition/route-definition';
import type { Plan } from '../planning/plan';

const names = { destination, intake: 'Site survey request' };
const told = (from: Plan, of = submission(maren)) => accountOf(from, of, names);
const lines = (steps: readonly AccountStep[], step: AccountStep['step']) => steps.filter((line) => line.step === step);
const contact = {
  id: 'c',
  kind: 'contact' as const,
  values: {
    email: 'm.oduya@fennwick.example',
    emails: ['m.oduya@fennwick.example'],
    first_name: 'Maren',
    last_name: 'Oduya',
    full_name: 'Maren Oduya',
    source: 'show-stand',
  },
};

describe('the account of a run', () => {
  test('begins with where the submission came from', () => {
    expect(
      told(
        plan(route, submission(maren)),
        submission(maren, { visit: { page: 'https://q.example/schools', utm_source: 'spring' } }),
      )[0],
    ).toEqual({
      step: 'arrived',
      text: 'Arrived at Site survey request from https://q.example/schools, source spring',
    });
    expect(told(plan(route, submission(maren)), submission(maren, { visit: {} }))[0]!.text).toBe(
      'Arrived at Site survey request, source direct',
    );
  });

  test('tells each value of a new record, without a before', () => {
    const values = lines(told(plan(routeOf({ ...person, links: [] }), submission(maren))), 'value');
    expect(values).toContainEqual({ step: 'value', text: 'Phone', after: '+44 7700 900318' });
    expect(values.map(({ text: label }) => label)).not.toContain('All phones');
  });

  test('tells what was there before and what was kept, with the reason', () => {
    const values = lines(
      told(plan(routeOf({ ...person, links: [] }), submission({ ...maren, last: 'Weir' }), known(contact))),
      'value',
    );
    expect(values).toContainEqual({ step: 'value', text: 'Last name', before: 'Oduya', after: 'Weir' });
    expect(values).toContainEqual({
      step: 'value',
      text: 'First source',
      before: 'show-stand',
      after: 'show-stand',
      note: 'kept: written only if blank',
    });
  });

  test('says that a later submission wrote a value already', () => {
    const later = known({
      ...contact,
      values: { ...contact.values, phone: '+447700900111' },
      writtenAt: { phone: '2027-01-01T00:00:00.000Z' },
    });
    const phone = lines(told(plan(routeOf({ ...person, links: [] }), submission(maren), later)), 'value').find(
      ({ text: label }) => label === 'Phone',
    );
    expect(phone).toMatchObject({ after: '+44 7700 900111', note: 'kept: a later submission wrote it' });
  });

  test('shows options by their labels', () => {
    const values = lines(
      told(plan(routeOf({ ...person, links: [] }), submission({ ...maren, growing: 'school garden' }))),
      'value',
    );
    expect(values).toContainEqual({ step: 'value', text: 'Growing for', after: 'Teaching garden' });
  });

  test('says how a record was recognised, and that a deal was found', () => {
    const records = new KnownRecords(
      [
        { ...contact, createdAt: '2026-01-01', writtenAt: {} },
        {
          id: 'd',
          kind: 'deal',
          values: { name: 'Old', pipeline: 'new-builds', stage: 'design', status: 'open' },
          createdAt: '2026-01-02',
          writtenAt: {},
        },
      ],
      [{ from: 'd', to: 'c' }],
    );
    const steps = told(
      plan(routeOf({ ...person, links: [] }, { ...sale, links: ['person'] }), submission(maren), records),
    );
    expect(lines(steps, 'recognised').map(({ text: words }) => words)).toEqual([
      'Recognised the contact by e-mail m.oduya@fennwick.example, the only contact with it',
      'Found the deal that this contact has in the pipeline already',
    ]);
    expect(lines(steps, 'placed')[0]!.text).toBe('Stays in New builds, Design');
  });

  test('says that nothing was given for a record', () => {
    const steps = told(plan(route, submission({ ...maren, company: '', email: 'maren@gmail.com' })));
    expect(lines(steps, 'nothing')[0]!.text).toBe('Wrote no company: the submission gave nothing for one');
  });

  test('ends with the reason when the run failed or was left out', () => {
    const failed = plan(
      routeOf({ ...person, links: [] }, { ...sale, links: ['person'], place: { ...sale.place!, stage: text('gone') } }),
      submission(maren),
    );
    expect(told(failed).at(-1)).toEqual({ step: 'failed', text: failed.reason!.text });
    const skipped = plan(routeOf({ ...person, links: [], whenNone: 'skip' }), submission(maren));
    expect(told(skipped).at(-1)!.step).toBe('skipped');
  });

  test('names the source with its channel, medium and campaign', () => {
    const from = submission(maren, { visit: { utm_source: 'spring', utm_medium: 'email', utm_campaign: 'march' } });
    expect(lines(told(plan(route, from), from), 'source')[0]).toEqual({
      step: 'source',
      text: 'Recorded the source spring',
      note: 'e-mail, email, campaign march',
    });
  });
});

describe('the outcome in a few words', () => {
  test('counts what is new and what changed', () => {
    expect(outcomeText(plan(routeOf({ ...person, links: [] }), submission(maren), known(contact)))).toBe(
      'Contact updated',
    );
  });

  test('is the reason where nothing was written', () => {
    expect(outcomeText(plan(routeOf({ ...person, links: [], whenNone: 'skip' }), submission(maren)))).toBe(
      'No contact was written: none has m.oduya@fennwick.example, and the route makes none.',
    );
  });

  test('says so when everything was known', () => {
    const first = submission(maren);
    const records = known();
    records.learn(plan(route, first).diff, first.receivedAt);
    expect(outcomeText(plan(route, submission(maren), records))).toBe('Nothing new');
  });
});

describe('what was not done is not told as done', () => {
  test('a run that fails would have created, and says so', () => {
    const failed = plan(
      routeOf({ ...person, links: [] }, { ...sale, links: ['person'], place: { ...sale.place!, stage: text('gone') } }),
      submission(maren),
    );
    const created = lines(told(failed), 'created');
    expect(created).toEqual([
      expect.objectContaining({ undone: true, text: expect.stringMatching(/^Would have created a contact/) }),
    ]);
    expect(lines(told(plan(route, submission(maren))), 'created').every(({ undone }) => undone === undefined)).toBe(
      true,
    );
  });
});

describe('why nothing was written', () => {
  const alone = { ...person, links: [] };
  test.each([
    [{ ...alone, whenNone: 'skip' as const }, 'none has m.oduya@fennwick.example, and the route makes none'],
    [
      { ...alone, whenMatched: 'skip' as const },
      'one with m.oduya@fennwick.example is known, and the route leaves those out',
    ],
    [{ ...alone, when: { of: { answer: 'first' }, test: 'is', value: 'Ada' } } as Write, 'it is written only when'],
  ])('%#: is said of the record', (write, why) => {
    const records = 'whenMatched' in write && write.whenMatched === 'skip' ? known(contact) : known();
    const { outcome, reason } = plan(routeOf(write), submission(maren), records);
    expect([outcome, reason!.text]).toEqual(['skip', expect.stringContaining(`No contact was written: ${why}`)]);
  });

  test('an empty submission gave nothing', () => {
    expect(plan(routeOf(alone), submission({})).reason!.text).toBe(
      'The submission gave nothing that the route could write.',
    );
  });
});

describe('a deal that a second enquiry does not find', () => {
  const deal = (values: object, createdAt = '2026-01-01T00:00:00.000Z') => ({
    id: 'd',
    kind: 'deal' as const,
    createdAt,
    values: { name: 'Glass', pipeline: 'new-builds', stage: 'enquiry', status: 'open', ...values },
  });
  const toldOf = (records: ReturnType<typeof known>, again: 'new' | 'update' = 'update', within?: number) => {
    const placed = { ...sale, links: ['person'], place: { ...sale.place!, again, ...(within ? { within } : {}) } };
    const steps = told(plan(routeOf({ ...person, links: [] }, placed), submission(maren), records));
    return steps.filter(({ text: line }) => /deal/.test(line)).map(({ text: line }) => line)[0];
  };
  const has = (one: ReturnType<typeof deal>) =>
    new KnownRecords(
      [
        { ...contact, createdAt: one.createdAt, writtenAt: {} },
        { ...one, writtenAt: {} },
      ],
      [{ from: 'd', to: 'c' }],
    );

  test.each([
    [deal({ status: 'won', stage: 'won' }), 'update' as const, undefined, '1 that the contact has there is closed'],
    [deal({}), 'new' as const, undefined, 'each enquiry makes another'],
    [deal({}), 'update' as const, 30, '1 that the contact has there is begun more than 30 days before'],
  ])('%#: is said why', (one, again, within, why) => {
    expect(toldOf(has(one), again, within)).toBe(`Another deal: ${why}`);
  });
});
