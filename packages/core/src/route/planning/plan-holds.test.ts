import { describe, expect, test } from '@jest/globals';
import { answer, destination as example, known, maren, person, routeOf, submission } from '../../testing/example';
import type { FollowUp, Hold, RouteDefinition } from '../../definition/route-definition';
import type { Destination } from '../../destination/destination';
import type { GivenAnswer } from '../../hold/hold';
import { HOLD_RULES, holdRuleOf } from '../../hold/registry';
import type { MailTemplate } from '../../mail/mail-template';
import { adoptRoute } from '../editing/adopt-route';
import { usesAnswer, withAnswerRenamed } from '../editing/answers';
import { readRoute } from '../editing/read-route';
import { checkRoute } from '../checking/check';
import { accountOf } from '../telling/account';
import { describeRoute } from '../telling/describe';
import { routeChanges } from './changes';
import { planRun } from './plan-run';

const people = ['ida', 'omar', 'gone'].map((key) => ({
  key,
  label: key === 'ida' ? 'Ida Bloem' : key,
  ...(key === 'gone' ? { retired: true } : {}),
}));
const hours = { timeZone: 'Europe/Amsterdam', hours: {}, away: [] };
const CONFIRM: MailTemplate = {
  key: 'confirm',
  name: 'Please confirm',
  subject: 'Please confirm, {{ contact.first_name }}',
  text: 'Is it you? {{ confirm.link }}',
  html: '<a href="{{ confirm.link }}">It is</a>',
};
const destination: Destination = {
  ...example,
  fields: example.fields.map((field) => (field.key === 'owner' ? { ...field, options: people } : field)),
  teams: { care: { name: 'Care', people: ['omar', 'ida', 'gone'] }, design: { name: 'Design', people: ['ida'] } },
  people: {
    ida: { ...hours, email: 'ida@quillfern.example' },
    omar: { ...hours, email: 'omar@quillfern.example' },
    gone: { ...hours, email: 'gone@quillfern.example' },
  },
  templates: [
    CONFIRM,
    { key: 'sorry', name: 'Sorry', subject: 'Sorry', text: 'Not this time: {{ denied.why }}', html: null },
  ],
};
const following = (...followUps: FollowUp[]): RouteDefinition => ({
  ...routeOf({ ...person, links: [] }),
  followUps,
});
const TASK = { do: 'task', on: 'person', title: answer('subject') };
const never = { of: { answer: 'first' }, test: 'is', value: 'Nobody' };
const around = { destination, intakes: [{ key: 'survey', name: 'Survey' }] };
const problemsOf = (hold: Hold, more: Partial<Destination> = {}) =>
  checkRoute({ ...following(), holds: [hold] }, { ...around, destination: { ...destination, ...more } }).filter(
    ({ at }) => at?.startsWith('/holds'),
  );

describe.each(HOLD_RULES.map((rule) => [rule.for, rule] as const))('the example of %s', (_, rule) => {
  const { settings, words } = rule.example;

  test('has the right shape and no problem, and is told in words', () => {
    expect(rule.shape.parse(settings)).toEqual(settings);
    expect(holdRuleOf(settings)).toBe(rule);
    expect(problemsOf(settings)).toEqual([]);
    expect(rule.describe(settings, { destination })).toBe(words);
    expect(rule.shape.safeParse({ ...settings, unheard: 1 }).success).toBe(false);
  });
});

describe('an approval', () => {
  const asks = (more = {}) => ({ for: 'approval', by: { team: 'care' }, ...more });
  const asking = (holds: Hold[], answered?: Record<number, GivenAnswer>) =>
    planRun({ ...following(TASK), holds }, submission({ ...maren, subject: 'Roof' }), known(), {
      destination,
      newIds: { person: 'new' },
      ...(answered ? { answered } : {}),
    });
  const said = (approved: boolean, note = '') => ({ for: 'approval', approved, by: 'Ida Bloem', note });

  test('keeps everything from being written, and says what would be', () => {
    const waiting = asking([asks()]);
    expect(waiting).toMatchObject({
      outcome: 'hold',
      reason: { code: 'approval', hold: 0, text: 'Nothing is written until somebody of the team Care says yes.' },
      effects: [{ words: 'Task “Roof” for nobody yet' }],
      diff: { created: {} },
    });
    const account = accountOf(waiting, submission(maren), { destination, intake: 'Survey' });
    expect(account.filter(({ step }) => step === 'made')).toMatchObject([
      { undone: true, text: 'Would have made a task “Roof” for nobody yet' },
    ]);
  });

  test('once given has the run write, and once denied ends it with who said so', () => {
    expect(asking([asks()], { 0: said(true) })).toMatchObject({ outcome: 'write', effects: [{}] });
    const denied = asking([asks()], { 0: said(false, 'Not ours') });
    expect(denied).toMatchObject({ outcome: 'skip', reason: { code: 'denied', text: 'Ida Bloem said no: Not ours.' } });
    expect(denied.effects).toBeUndefined();
  });

  test('is asked for only where its condition is met, and each in its turn', () => {
    expect(asking([asks({ when: never })]).outcome).toBe('write');
    const two = [asks({ when: never }), asks({ by: { person: 'ida' } }), asks()];
    expect(asking(two).reason).toMatchObject({ hold: 1, text: 'Nothing is written until Ida Bloem says yes.' });
    expect(asking(two, { 1: said(true) }).reason).toMatchObject({ hold: 2 });
  });

  test('names people that there are, and is told in words and adopted like any other', () => {
    const wrong = {
      ...following(TASK),
      holds: [asks({ by: { person: 'gone' }, when: { ...never, test: 'no-such' } })],
    };
    const around = { destination, intakes: [{ key: 'survey', name: 'Survey' }] };
    expect(
      checkRoute(wrong, around)
        .filter(({ at }) => at?.startsWith('/holds'))
        .map(({ code }) => code),
    ).toEqual(expect.arrayContaining(['unknown-person', 'condition-does-not-fit']));
    const right = { ...following(), holds: [asks({ when: never })] };
    expect(describeRoute(right, { destination, intakes: [] }).followUp).toBe(
      'somebody of the team Care says yes first, only when first is Nobody',
    );
    expect(routeChanges(following(), right, { destination, intakes: [] })).toEqual([
      'Hold added: somebody of the team Care says yes first, only when first is Nobody.',
    ]);
    const foreign = { ...following(), holds: [asks({ by: { person: 'IDA BLOEM' } })] };
    expect(adoptRoute(foreign, destination).route.holds).toMatchObject([{ by: { person: 'ida' } }]);
    expect(withAnswerRenamed(right, 'first', 'given').holds).toMatchObject([{ when: { of: { answer: 'given' } } }]);
    expect(usesAnswer({ ...right, writes: [] }, 'first')).toBe(true);
    expect(readRoute(right).ok).toBe(true);
    const wrongAt = (one: object) => readRoute({ ...right, holds: [one] });
    expect(wrongAt(asks({ louder: true }))).toMatchObject({ problems: [{ at: '/holds/0/louder' }] });
    expect(wrongAt({ for: 'approval' })).toMatchObject({
      problems: [{ at: '/holds/0', text: expect.stringContaining('A hold is') }],
    });
  });

  test('writes to everybody of a team who is active, each with a link of their own, and to nobody unless wished', () => {
    const link = (ask: number) => `https://hay.example/ask/${ask}`;
    const asked = (by: object) =>
      planRun(
        { ...following(TASK), holds: [asks({ by, byMail: true })] },
        submission({ ...maren, subject: 'Roof\nX' }),
        known(),
        {
          destination,
          newIds: { person: 'new' },
          link,
        },
      ).asks;
    expect(asked({ team: 'care' })).toMatchObject([
      { for: 'approval', hold: 0, to: 'ida@quillfern.example', person: 'ida', days: 14 },
      { to: 'omar@quillfern.example', person: 'omar' },
    ]);
    const [first, second] = asked({ team: 'care' })!.map(({ mail }) => mail!);
    expect(first!.text).toContain('https://hay.example/ask/0');
    expect(second!.text).toContain('https://hay.example/ask/1');
    expect(first!.text).toContain('- Task “Roof X” for nobody yet.');
    expect(first!.subject).not.toMatch(/\p{Cc}/u);
    expect(asked({ person: 'gone' })).toBeUndefined();
    expect(asking([asks()]).asks).toBeUndefined();
  });

  test('reminds who has not answered, and asks the next as well, who are not asked already', () => {
    const link = (ask: number) => `https://hay.example/ask/${ask}`;
    const hold = asks({ by: { person: 'ida' }, byMail: true, remindAfter: 'P2D', next: { team: 'care' } });
    const waiting = planRun({ ...following(TASK), holds: [hold] }, submission(maren), known(), {
      destination,
      newIds: { person: 'new' },
      link,
    });
    expect(waiting.asks).toMatchObject([
      {
        person: 'ida',
        days: 16,
        reminder: { inDays: 2, mail: { subject: expect.stringMatching(/^Still waiting: /) } },
      },
      { person: 'omar', days: 16, inDays: 2, mail: { text: expect.stringContaining('https://hay.example/ask/1') } },
    ]);
    expect(waiting.asks![0]!.reminder!.mail.text).toContain('https://hay.example/ask/0');
    expect(waiting.asks![1]!.reminder).toBeUndefined();
  });

  test('once denied writes the visitor, once for a submission, with the reason where the template names it', () => {
    const holds = [asks({ ifDenied: 'sorry' })];
    const denied = (payload: object = {}, names = destination) =>
      planRun({ ...following(TASK), holds }, submission({ ...maren, ...payload }), known(), {
        destination: names,
        newIds: { person: 'new' },
        answered: { 0: said(false, 'Too far away') },
      });
    expect(denied()).toMatchObject({
      outcome: 'skip',
      diff: { created: {} },
      effects: [
        {
          words: 'Mail “Sorry” to m.oduya@fennwick.example',
          out: { kind: 'mail', once: 'denied.0', body: { text: 'Not this time: Too far away' } },
        },
      ],
    });
    const account = accountOf(denied(), submission(maren), { destination, intake: 'Survey' });
    expect(account).toContainEqual({
      step: 'sent',
      text: 'Put in the outbox: Mail “Sorry” to m.oduya@fennwick.example',
    });
    expect(denied({}, { ...destination, templates: [] }).effects).toMatchObject([
      { unmet: 'its template is gone, or cannot be worked out' },
    ]);
  });

  test.each([
    ['days that are none', { byMail: true, remindAfter: 'P0D' }, 'wrong-value', '/holds/0/remindAfter'],
    ['a reminder where nobody is asked by mail', { remindAfter: 'P2D' }, 'wrong-value', '/holds/0/remindAfter'],
    ['the next without a time', { byMail: true, next: { person: 'omar' } }, 'wrong-value', '/holds/0/next'],
    [
      'the next who are not there',
      { byMail: true, remindAfter: 'P2D', next: { person: 'gone' } },
      'unknown-person',
      '/holds/0/next/person',
    ],
    ['a template that is gone', { ifDenied: 'gone' }, 'unknown-template', '/holds/0/ifDenied'],
    ['a template with names of others', { ifDenied: 'confirm' }, 'template-does-not-fit', '/holds/0/ifDenied'],
  ])('refuses %s', (_, more, code, at) => {
    const route = { ...following(TASK), holds: [asks(more)] };
    expect(checkRoute(route, { destination, intakes: [{ key: 'survey', name: 'Survey' }] })).toContainEqual(
      expect.objectContaining({ code, at }),
    );
  });

  test('names the next and the template by what they are called elsewhere', () => {
    const foreign = { ...following(), holds: [asks({ next: { person: 'OMAR' }, ifDenied: 'Sorry' })] };
    expect(adoptRoute(foreign, destination).route.holds).toMatchObject([
      { next: { person: 'omar' }, ifDenied: 'sorry' },
    ]);
    const told = asks({ byMail: true, remindAfter: 'P2D', next: { person: 'omar' }, ifDenied: 'sorry' });
    expect(describeRoute({ ...following(), holds: [told] }, { destination, intakes: [] }).followUp).toBe(
      'somebody of the team Care says yes first, asked by mail and again after 2 days, with omar; after a no the visitor is written “Sorry”',
    );
  });
});

describe('a confirmation', () => {
  const confirm = (more = {}): Hold => ({ for: 'confirmation', template: 'confirm', ...more });
  const waiting = ({
    payload = maren as object,
    answered = undefined as Record<number, GivenAnswer> | undefined,
    holds = [confirm()],
    prepared = destination,
  } = {}) =>
    planRun({ ...following(TASK), holds }, submission({ ...payload, subject: 'Roof' }), known(), {
      destination: prepared,
      newIds: { person: 'new' },
      answered,
      link: () => 'https://hay.example/ask/secret',
    });

  test('asks the visitor by mail and writes nothing; the account says whom', () => {
    const plan = waiting();
    expect(plan).toMatchObject({
      outcome: 'hold',
      reason: { code: 'confirmation', hold: 0 },
      diff: { created: {} },
      touches: [],
      effects: [{ words: 'Task “Roof” for nobody yet' }],
      asks: [
        {
          for: 'confirmation',
          hold: 0,
          to: 'm.oduya@fennwick.example',
          days: 7,
          mail: {
            text: 'Is it you? https://hay.example/ask/secret',
            html: '<a href="https://hay.example/ask/secret">It is</a>',
          },
        },
      ],
    });
    const account = accountOf(plan, submission(maren), { destination, intake: 'Survey' });
    expect(account.find(({ step }) => step === 'sent')).toEqual({
      step: 'sent',
      text: 'Asked m.oduya@fennwick.example by mail',
    });
  });

  test('once confirmed is written, and ends when it was not in time', () => {
    const by = 'm.oduya@fennwick.example';
    expect(waiting({ answered: { 0: { for: 'confirmation', approved: true, by, note: '' } } })).toMatchObject({
      outcome: 'write',
    });
    expect(waiting({ answered: { 0: { for: 'confirmation', approved: false, by: '', note: '' } } })).toMatchObject({
      outcome: 'skip',
      reason: { code: 'not-confirmed', text: 'm.oduya@fennwick.example did not confirm within 7 days.' },
    });
  });

  test('is not answered by what somebody said to another hold that stood in its place', () => {
    expect(waiting({ answered: { 0: { for: 'approval', approved: true, by: 'Ida Bloem', note: '' } } })).toMatchObject({
      outcome: 'hold',
    });
  });

  test('fails in words where nobody can be asked', () => {
    const { email: _, ...nameless } = maren as Record<string, unknown>;
    const fields = destination.fields.map((field) => ({ ...field, required: false }));
    expect(waiting({ payload: nameless, prepared: { ...destination, fields } })).toMatchObject({
      outcome: 'fail',
      reason: { code: 'not-asked' },
    });
    expect(waiting({ holds: [confirm({ template: 'gone' })] })).toMatchObject({
      outcome: 'fail',
      reason: { code: 'not-asked', text: expect.stringContaining('no template “gone”') },
    });
    expect(waiting({ holds: [confirm({ when: never })] }).outcome).toBe('write');
  });

  test('is refused where its mail has no link, names what there is not, or the days are none', () => {
    const codes = (hold: Hold, templates = [CONFIRM]) =>
      problemsOf(hold, { templates }).map(({ code, at }) => `${code} ${at}`);
    expect(codes(confirm({ within: 'P3D' }))).toEqual([]);
    for (const within of ['P0D', 'P91D', '3 days', 'PT3H'])
      expect(codes(confirm({ within }))).toEqual(['wrong-value /holds/0/within']);
    expect(codes(confirm({ template: 'gone' }))).toEqual(['unknown-template /holds/0/template']);
    const linkless = [
      { ...CONFIRM, html: '<p>Hello</p>' },
      { ...CONFIRM, text: 'Hello' },
    ];
    for (const template of linkless)
      expect(codes(confirm(), [template])).toEqual(['template-does-not-fit /holds/0/template']);
    expect(codes(confirm(), [{ ...CONFIRM, subject: '{{ contact.shoe_size }}' }])).toEqual([
      'template-does-not-fit /holds/0/template',
    ]);
  });
});
