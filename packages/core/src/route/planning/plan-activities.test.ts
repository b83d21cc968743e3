import { describe, expect, test } from '@jest/globals';
import { Counters } from '../../assignment/counters';
import { answer, destination as example, known, maren, person, routeOf, submission, text } from '../../testing/example';
import type { Destination } from '../../destination/destination';
import type { FollowUp, RouteDefinition } from '../../definition/route-definition';
import { adoptRoute } from '../editing/adopt-route';
import { checkRoute } from '../checking/check';
import { comparePlans } from '../comparing/compare-plans';
import { describeRoute } from '../telling/describe';
import { accountOf } from '../telling/account';
import type { MailTemplate } from '../../mail/mail-template';
import { lookupsFor } from './lookups';
import { planRun } from './plan-run';

const people = ['ida', 'omar'].map((key) => ({ key, label: key === 'ida' ? 'Ida Bloem' : 'Omar Tal' }));
const destination: Destination = {
  ...example,
  fields: example.fields.map((field) => (field.key === 'owner' ? { ...field, options: people } : field)),
  teams: { care: { name: 'Care', people: ['ida', 'omar'] } },
  people: {
    ida: {
      timeZone: 'Europe/Amsterdam',
      hours: { mon: { from: '09:00', to: '12:00' } },
      away: [],
      phone: '+31201234567',
    },
  },
  channels: [{ key: 'care-desk', name: 'Care desk', by: 'chat' }],
};
const alone = { ...person, links: [] };
const following = (...followUps: FollowUp[]): RouteDefinition => ({ ...routeOf(alone), followUps });
const planned = (followUps: FollowUp[], { values = {}, payload = {}, counters = {} } = {}) =>
  planRun(
    following(...followUps),
    submission({ ...maren, ...payload }),
    known({ id: 'maren', kind: 'contact', values: { email: 'm.oduya@fennwick.example', ...values } }),
    { destination, newIds: { person: 'new' }, counters: new Counters(counters) },
  );
const problemsOf = (...followUps: FollowUp[]) =>
  checkRoute(following(...followUps), { destination, intakes: [{ key: 'survey', name: 'Survey' }] }).filter(({ at }) =>
    at?.startsWith('/followUps'),
  );
const TASK = { do: 'task', on: 'person', title: answer('subject') };
const never = { of: { answer: 'first' }, test: 'is', value: 'Nobody' };

describe('a task', () => {
  test('has the subject of the visitor in one line, and goes to whoever owns the record', () => {
    const { effects, diff } = planned([TASK], { values: { owner: 'omar' }, payload: { subject: ' Leaking\n roof ' } });
    expect(effects).toEqual([
      {
        do: 'task',
        words: 'Task “Leaking roof” for Omar Tal',
        record: { kind: 'contact', id: 'maren' },
        made: { make: 'task', title: 'Leaking roof', owner: 'omar', due: null, priority: 'normal' },
      },
    ]);
    expect(diff.created).toEqual({});
  });

  test('is called as its route is where the answer is blank, and is for nobody yet where nobody owns the record', () => {
    expect(planned([TASK]).effects).toMatchObject([{ made: { title: 'Site survey', owner: null } }]);
  });

  test('is due after the working hours of the person who gets it', () => {
    const due = { in: 2, unit: 'hours', working: true };
    const made = (owner: object) => planned([{ ...TASK, due, owner }]).effects![0]!.made;
    // The submission came on a Saturday; Ida works on Monday mornings in Amsterdam.
    expect(made({ person: 'ida' })).toMatchObject({ owner: 'ida', due: '2026-03-16T10:00:00.000Z' });
    expect(made({ person: 'omar' })).toMatchObject({ owner: 'omar', due: '2026-03-16T11:00:00.000Z' });
  });

  test('takes turns in a team: the counter is looked up, and goes on with the run', () => {
    const route = following({ ...TASK, owner: { team: 'care' } });
    expect(lookupsFor(route, submission(maren), destination).counters).toEqual(['turn care']);
    const [first, second] = [0, 1].map((turn) => planned(route.followUps!, { counters: { 'turn care': turn } }));
    expect([first, second].map((plan) => plan!.effects![0]!.made)).toMatchObject([{ owner: 'ida' }, { owner: 'omar' }]);
    expect(first!.advance).toEqual({ 'turn care': 1 });
  });

  test('is made although nothing changes on the record, and not under a condition that is not met', () => {
    const again = planned([TASK], { values: { first_name: 'Maren', last_name: 'Oduya' } });
    expect(again.outcome).toBe('write');
    expect(planned([{ ...TASK, when: never }]).effects).toMatchObject([{ unmet: expect.stringContaining('Nobody') }]);
  });

  test('names people and teams that there are, and has a title', () => {
    expect(problemsOf({ ...TASK, owner: { person: 'ida' } })).toEqual([]);
    expect(problemsOf({ ...TASK, title: { parts: [] } })).toMatchObject([
      { code: 'blank-title', at: '/followUps/0/title' },
      {},
    ]);
    expect(problemsOf({ ...TASK, owner: { person: 'gone' } })).toMatchObject([
      { code: 'unknown-person', at: '/followUps/0/owner/person' },
    ]);
    expect(problemsOf({ ...TASK, owner: { team: 'gone' } })).toMatchObject([
      { code: 'unknown-team', at: '/followUps/0/owner/team' },
    ]);
    const gone = planned([{ ...TASK, owner: { person: 'gone' } }]);
    expect(gone.effects).toMatchObject([{ made: { owner: null } }]);
    expect(gone.problems).toMatchObject([{ code: 'no-owner' }]);
  });
});

describe('a note', () => {
  const note = { do: 'note', on: 'person', title: text('Message'), body: answer('message') };

  test('keeps its text with its lines, and says nothing where there is none', () => {
    expect(planned([note], { payload: { message: 'One\nTwo' } }).effects).toMatchObject([
      { words: 'Note “Message” on the contact', made: { make: 'note', title: 'Message', text: 'One\nTwo' } },
    ]);
    const silent = planned([note]).effects!;
    expect(silent[0]).toMatchObject({ words: 'No note on the contact: it would say nothing' });
    expect(silent[0]!.made).toBeUndefined();
  });
});

describe('a field', () => {
  const field = { do: 'field', on: 'person', field: 'growing_for', value: answer('why') };

  test('takes a fixed value or an answer, after the writes, in its order', () => {
    const { diff } = planned(
      [
        { ...field, value: text('school') },
        { ...field, field: 'job_title' },
      ],
      { payload: { why: 'Head' } },
    );
    expect(diff.changed.maren!.fields).toMatchObject({
      growing_for: { before: null, after: 'school' },
      job_title: { after: 'Head' },
    });
    expect(
      planned([field], { payload: { why: 'Teaching garden' } }).diff.changed.maren!.fields.growing_for,
    ).toMatchObject({
      after: 'school',
    });
  });

  test('stays as it was where the answer is blank or does not fit, which is said', () => {
    expect(
      planned([field], { values: { growing_for: 'school' } }).diff.changed.maren?.fields.growing_for,
    ).toBeUndefined();
    expect(planned([field], { payload: { why: 'fun' } }).problems).not.toEqual([]);
  });

  test('is one that there is, that may be set, with an option that it has', () => {
    expect(problemsOf({ ...field, field: 'gone' })).toMatchObject([{ code: 'unknown-field' }]);
    expect(problemsOf({ ...field, field: '' })).not.toEqual([]);
    expect(problemsOf({ ...field, value: text('fun') })).toMatchObject([{ code: 'unknown-option' }]);
    const kept = destination.fields.find(({ record, kept: is }) => record === 'contact' && is)!;
    expect(problemsOf({ ...field, field: kept.key, value: text('x') })).toMatchObject([{ code: 'kept-field' }]);
  });
});

describe('a message', () => {
  const chat = { do: 'message', to: { channel: 'care-desk' }, by: 'chat', body: answer('message'), link: 'person' };
  const sms = { do: 'message', to: { person: { person: 'ida' } }, by: 'text', body: text('Call') };

  test('goes to a channel with a link to the record', () => {
    expect(planned([chat], { payload: { message: 'Hello' } }).effects).toMatchObject([
      {
        words: 'Message to Care desk',
        out: {
          kind: 'chat',
          to: 'Care desk',
          body: { channel: 'care-desk', text: 'Hello' },
          record: { kind: 'contact', id: 'maren' },
        },
      },
    ]);
    expect(planned([chat]).effects![0]!.out).toBeUndefined();
  });

  test('goes to a colleague whose number is known', () => {
    expect(planned([sms]).effects).toMatchObject([
      { out: { kind: 'text', body: { number: '+31201234567', text: 'Call' } } },
    ]);
    const omar = planned([{ ...sms, to: { person: { person: 'omar' } } }]);
    expect(omar.effects![0]!.out).toBeUndefined();
    expect(omar.problems).toMatchObject([{ code: 'no-number' }]);
  });

  test('names a channel that there is, by its own way, and says something', () => {
    expect(problemsOf(chat)).toEqual([]);
    expect(problemsOf({ ...chat, to: { channel: 'gone' } })).toMatchObject([{ code: 'unknown-channel' }]);
    expect(problemsOf({ ...chat, by: 'text' })).toMatchObject([{ code: 'message-does-not-fit' }]);
    expect(problemsOf({ ...sms, by: 'chat' })).toMatchObject([{ code: 'message-does-not-fit' }]);
    expect(problemsOf({ ...chat, link: 'nobody' })).toMatchObject([{ code: 'unknown-write' }]);
    expect(problemsOf({ ...chat, body: { parts: [] } })[0]).toMatchObject({ code: 'blank-text' });
  });
});

describe('a mail', () => {
  const thanks: MailTemplate = {
    key: 'thanks',
    name: 'Thank you',
    subject: 'Thank you, {{ contact.first_name }}',
    text: 'Dear {{ contact.first_name }}, about {{ answers.subject }}: {{ contact.growing_for }}. {{ route.name }}',
    html: '<p>{{ answers.subject }}</p>',
  };
  const where = (template = thanks): Destination => ({ ...destination, templates: [template] });
  const write = (followUp: object, payload = {}, template = thanks) =>
    planRun(
      following({ do: 'mail', to: 'visitor', template: 'thanks', ...followUp }),
      submission({ ...maren, subject: '<b>Roof</b>', growing: 'Teaching garden', ...payload }),
      known(),
      { destination: where(template), newIds: { person: 'new' } },
    );
  const wrongIn = (text: string, html: string | null = null) =>
    checkRoute(following({ do: 'mail', to: 'visitor', template: 'thanks' }), {
      destination: where({ ...thanks, text, html }),
      intakes: [{ key: 'survey', name: 'Survey' }],
    }).filter(({ at }) => at?.startsWith('/followUps'));

  test('is written to the visitor with what they answered and what was written, escaped where it is HTML', () => {
    expect(write({}).effects).toEqual([
      {
        do: 'mail',
        words: 'Mail “Thank you” to m.oduya@fennwick.example',
        out: {
          kind: 'mail',
          to: 'm.oduya@fennwick.example',
          body: {
            subject: 'Thank you, Maren',
            text: 'Dear Maren, about <b>Roof</b>: Teaching garden. Site survey',
            html: '<p>&lt;b&gt;Roof&lt;/b&gt;</p>',
          },
          record: { kind: 'contact', id: 'new' },
        },
      },
    ]);
  });

  test('has one line as its subject, whatever was answered', () => {
    const injected = write({}, { subject: 'x\r\nBcc: all@x.example' }, { ...thanks, subject: '{{ answers.subject }}' });
    expect(injected.effects![0]!.out!.body).toMatchObject({ subject: 'x Bcc: all@x.example' });
  });

  test.each([
    ['none', ''],
    ['a list of two', 'a@x.example, b@x.example'],
    ['one with a header in it', 'a@x.example\r\nBcc: b@x.example'],
    ['no address', 'nobody'],
  ])('is not sent to %s, which is said', (_, address) => {
    const made = write({ to: answer('other') }, { other: address });
    expect(made.effects![0]!.out).toBeUndefined();
    expect(made.problems.map(({ code }) => code)).toContain('no-address');
    expect(made.outcome).toBe('write');
  });

  test('is refused at publishing where its template names what there is not', () => {
    expect(wrongIn('{{ contact.email }} {{ answers.anything.at.all }} {{ person.phone }} {{ route.name }}')).toEqual(
      [],
    );
    expect(wrongIn('{{ contact.gone }}')).toMatchObject([
      {
        code: 'template-does-not-fit',
        text: 'The template Thank you names contact.gone, and a contact has no such field.',
      },
    ]);
    expect(wrongIn('{{ deal.name }}')).toMatchObject([
      { text: 'The template Thank you names a deal, and the route writes none.' },
    ]);
    expect(wrongIn('x', '{% if somebody %}y{% endif %}')).toMatchObject([{ code: 'template-does-not-fit' }]);
    expect(problemsOf({ do: 'mail', to: 'visitor', template: 'gone' })).toMatchObject([{ code: 'unknown-template' }]);
    expect(problemsOf({ do: 'mail', to: { parts: [] }, template: '' }).length).toBeGreaterThan(1);
  });

  test('is not sent where its template is gone or does not work, and the record is written all the same', () => {
    const gone = write({ template: 'gone' });
    expect([gone.outcome, gone.problems.map(({ code }) => code)]).toEqual(['write', ['unknown-template']]);
    const broken = write({}, {}, { ...thanks, text: '{{ answers.subject | upcas }}' });
    expect(broken.problems.map(({ code }) => code)).toEqual(['template-failed']);
  });
});

describe('a document', () => {
  const DOCUMENT = { do: 'document', on: 'person', title: answer('subject') };
  const rowsOf = (payload: object) => {
    const made = planned([DOCUMENT], { payload }).effects![0]!.made;
    return made?.make === 'document' ? made.rows! : [];
  };

  test('holds all that was sent, under what was asked, and when it came', () => {
    const { effects } = planned([DOCUMENT], { payload: { subject: 'Roof: a/b', first_bay: 'Ω 12' } });
    expect(effects).toMatchObject([
      {
        words: 'Document “Roof: a/b” on the contact',
        record: { kind: 'contact', id: 'maren' },
        made: { make: 'document', name: 'Roof a b.pdf', title: 'Roof: a/b' },
      },
    ]);
    const rows = rowsOf({ subject: 'Roof', first_bay: 'Ω 12', blank: '' });
    expect(rows).toContainEqual({ label: 'First bay', text: 'Ω 12' });
    expect(rows.map(({ label }) => label)).not.toContain('Blank');
    expect(rows.find(({ label }) => label === 'Received')!.text).toMatch(/^\d{4}-\d\d-\d\d \d\d:\d\d.* UTC$/);
  });

  test('is bounded, and says what it leaves out', () => {
    const many = Object.fromEntries(Array.from({ length: 700 }, (_, n) => [`q${n}`, 'x']));
    expect(rowsOf(many).some(({ text: says }) => /^\d+ more answers are in Hay Cart alone/.test(says))).toBe(true);
    const long = rowsOf({ a: 'x'.repeat(100_000), b: 'y'.repeat(240_000), c: 'z'.repeat(240_000) });
    expect(long.reduce((sum, { text: says }) => sum + says.length, 0)).toBeLessThan(210_000);
  });

  test('is called as its route is where its title is blank, and by a name that any system takes', () => {
    for (const [subject, name] of [
      ['', 'Site survey.pdf'],
      ['../../etc/passwd\u0000', 'etc passwd.pdf'],
      ['a'.repeat(300), `${'a'.repeat(80)}.pdf`],
      ['***', 'Document.pdf'],
    ])
      expect(planned([DOCUMENT], { payload: { subject } }).effects).toMatchObject([{ made: { name } }]);
  });

  test('can be by a template, which must be there and fit', () => {
    const at = { ...DOCUMENT, template: 'gone' };
    expect(problemsOf(at).map(({ code, at: place }) => `${code} ${place}`)).toEqual([
      'unknown-template /followUps/0/template',
    ]);
    expect(planned([at]).problems.map(({ code }) => code)).toEqual(['unknown-template']);
  });

  test('goes with a mail after it, and not with one before', () => {
    const mail = {
      do: 'mail',
      to: 'visitor',
      template: 'thanks',
      attach: { documents: true, uploads: true, files: ['prices'] },
    };
    const template: MailTemplate = { key: 'thanks', name: 'Thanks', subject: 'Hello', text: 'Hello', html: null };
    const around = { ...destination, templates: [template], files: [{ key: 'prices', name: 'Prices.pdf', size: 1 }] };
    const bodies = (...followUps: FollowUp[]) =>
      planRun(following(...followUps), submission({ ...maren, subject: 'Roof' }), known(), {
        destination: around,
        newIds: { person: 'new' },
      }).effects!.flatMap(({ out }) => (out ? (out.body as { attached?: object[] }) : []));
    expect(bodies(DOCUMENT, mail)).toMatchObject([
      {
        attached: [
          { name: 'Roof.pdf', document: { title: 'Roof' } },
          { uploads: expect.stringMatching(/^submission/) },
          { file: 'prices' },
        ],
      },
    ]);
    expect(bodies(mail, DOCUMENT)[0]!.attached).toHaveLength(2);
    const gone = checkRoute(following({ ...mail, attach: { files: ['gone'] } }), {
      destination: around,
      intakes: [{ key: 'survey', name: 'Survey' }],
    });
    expect(gone.map(({ code, at: place }) => `${code} ${place}`)).toContain('unknown-file /followUps/0/attach/files/0');
  });
});

test('a route says what it does afterwards, and its account what was made', () => {
  const route = following(
    { ...TASK, due: { in: 2, unit: 'hours' }, owner: { team: 'care' } },
    { do: 'note', on: 'person', body: text('Hello') },
    { do: 'message', to: { channel: 'care-desk' }, by: 'chat', body: text('Hello') },
  );
  expect(describeRoute(route, { destination, intakes: [] }).followUp).toBe(
    'a task is made for somebody of the team Care, due in 2 hours, a note is written on the contact and the channel Care desk gets a chat message',
  );
  const sent = submission(maren);
  const account = accountOf(planned(route.followUps!), sent, { destination, intake: 'Survey' });
  expect(account.filter(({ step }) => step === 'made').map(({ text: says }) => says)).toEqual([
    'Made a task “Site survey” for Ida Bloem',
    'Made a note on the contact',
  ]);
});

test('two versions differ in what they make and what it says', () => {
  const compared = (one: FollowUp[], other: FollowUp[]) =>
    comparePlans(planned(one), planned(other), destination).map(({ text: says }) => says);
  expect(compared([TASK], [TASK])).toEqual([]);
  expect(compared([], [TASK])).toEqual(['Task “Site survey” for nobody yet, which was not made before']);
  expect(compared([TASK], [])).toEqual(['Task “Site survey” for nobody yet is not made any more']);
  expect(compared([TASK], [{ ...TASK, priority: 'high' }])).toEqual([
    'Task “Site survey” for nobody yet says something else',
  ]);
});

test('a route from elsewhere gets the names of here', () => {
  const foreign = following(
    { ...TASK, owner: { person: 'IDA BLOEM' } },
    { do: 'field', on: 'person', field: 'Growing for', value: text('school') },
    { do: 'message', to: { channel: 'Care Desk' }, by: 'chat', body: text('Hello') },
  );
  expect(adoptRoute(foreign, destination).route.followUps).toMatchObject([
    { owner: { person: 'ida' } },
    { field: 'growing_for' },
    { to: { channel: 'care-desk' } },
  ]);
});
