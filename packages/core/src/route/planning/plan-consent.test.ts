import { describe, expect, test } from '@jest/globals';
import { answer, destination as example, known, maren, person, routeOf, submission, text } from '../../testing/example';
import type { Destination } from '../../destination/destination';
import type { FollowUp, RouteDefinition } from '../../definition/route-definition';
import { checkRoute } from '../checking/check';
import { planRun } from './plan-run';

const template = (key: string, name: string, said: string, html: string | null = null) => ({
  key,
  name,
  subject: name,
  text: said,
  html,
});
const destination: Destination = {
  ...example,
  templates: [
    template('confirm', 'Please confirm', 'Is it you? {{ confirm.link }}'),
    template('news', 'News', 'News. {{ unsubscribe.link }}', '<a href="{{ unsubscribe.link }}">No more</a>'),
    template('half', 'Half', 'News. {{ unsubscribe.link }}', '<p>News</p>'),
    template('plain', 'Plain', 'Hello.'),
  ],
};
const LINK = 'https://hay-cart.example/ask/a-link-of-their-own';
const alone = { ...person, links: [] };
const following = (...followUps: FollowUp[]): RouteDefinition => ({ ...routeOf(alone), followUps });
const planned = (followUps: FollowUp[], payload: object = {}, visit = {}) =>
  planRun(following(...followUps), { ...submission({ ...maren, ...payload }), visit }, known(), {
    destination,
    newIds: { person: 'new' },
  });
const problemsOf = (followUp: FollowUp, route = following(followUp)) =>
  checkRoute(route, { destination, intakes: [{ key: 'survey', name: 'Survey' }] }).filter(({ at }) =>
    at?.startsWith('/followUps'),
  );
const consent = (more: object = {}): FollowUp => ({
  do: 'consent',
  on: 'person',
  channel: 'email',
  state: 'given',
  words: text('You may write to me.'),
  ...more,
});
const news = (more: object = {}): FollowUp => ({
  do: 'mail',
  to: 'visitor',
  template: 'news',
  marketing: true,
  ...more,
});

describe('a consent', () => {
  test('is kept with its words and its place', () => {
    const { effects } = planned([consent()], {}, { page: 'https://quillfern.example/visit' });
    expect(effects).toMatchObject([
      {
        words: 'Consent to e-mail given',
        record: { kind: 'contact', id: 'new' },
        made: { state: 'given', words: 'You may write to me.', place: 'on https://quillfern.example/visit' },
      },
    ]);
    expect(planned([consent({ channel: 'phone', state: 'withdrawn' })]).effects).toMatchObject([
      { words: 'Consent to phone withdrawn', made: { place: 'by survey' } },
    ]);
  });

  test('is pending where it is to be confirmed, by a mail with a link for so many days', () => {
    const [effect] = planned([consent({ confirm: 'confirm', within: 'P3D' })]).effects!;
    expect(effect).toMatchObject({
      words: 'Consent to e-mail pending until m.oduya@fennwick.example confirms',
      made: { state: 'pending' },
      out: { kind: 'mail', body: { consent: 'pending', days: 3, text: `Is it you? ${LINK}` } },
    });
  });

  test('stays pending, explained, where nobody can be asked', () => {
    const { effects, problems } = planned([consent({ confirm: 'gone' })]);
    expect(effects).toMatchObject([{ words: 'Consent to e-mail pending', made: { state: 'pending' } }]);
    expect(effects![0]!.out).toBeUndefined();
    expect(problems).toMatchObject([{ code: 'unknown-template' }]);
  });

  test('is none where its words are blank', () => {
    const { effects } = planned([consent({ words: answer('never_sent') })]);
    expect(effects![0]!.made).toBeUndefined();
    expect(effects![0]!.words).toBe('Consent to e-mail is not noted: its words are blank');
  });

  test.each([
    ['of no words', consent({ words: { parts: [] } }), 'blank-text', '/followUps/0/words'],
    [
      'confirmed by a mail without the link',
      consent({ confirm: 'plain' }),
      'template-does-not-fit',
      '/followUps/0/confirm',
    ],
    ['confirmed by no template', consent({ confirm: 'gone' }), 'unknown-template', '/followUps/0/confirm'],
    ['for days that are none', consent({ confirm: 'confirm', within: 'P0D' }), 'wrong-value', '/followUps/0/within'],
    ['of a call, by mail', consent({ confirm: 'confirm', channel: 'phone' }), 'wrong-value', '/followUps/0/confirm'],
    [
      'that is withdrawn, by mail',
      consent({ confirm: 'confirm', state: 'withdrawn' }),
      'wrong-value',
      '/followUps/0/confirm',
    ],
  ])('%s is refused', (_, followUp, code, at) => {
    expect(problemsOf(followUp)).toContainEqual(expect.objectContaining({ code, at }));
  });

  test('of anything but a contact is refused', () => {
    const firm = { as: 'firm', record: 'company' as const, fills: [{ field: 'name', value: text('Weir') }] };
    const route = { ...routeOf(alone, firm), followUps: [consent({ on: 'firm' })] };
    expect(problemsOf(consent(), route)).toContainEqual(
      expect.objectContaining({ code: 'needs-contact', at: '/followUps/0/on' }),
    );
  });
});

describe('marketing', () => {
  test('says that it goes to those alone who agreed, with a link for who wants no more', () => {
    const [effect] = planned([news()]).effects!;
    expect(effect).toMatchObject({
      words: 'Mail “News” to m.oduya@fennwick.example, if they agreed to e-mail',
      out: { record: { kind: 'contact' }, body: { consent: 'given', text: `News. ${LINK}` } },
    });
    expect(problemsOf(news())).toEqual([]);
  });

  test.each([
    ['to somebody else', news({ to: text('a@b.example') }), 'needs-contact', '/followUps/0/marketing'],
    ['without the link in its HTML', news({ template: 'half' }), 'template-does-not-fit', '/followUps/0/template'],
    ['without the link', news({ template: 'plain' }), 'template-does-not-fit', '/followUps/0/template'],
  ])('%s is refused', (_, followUp, code, at) => {
    expect(problemsOf(followUp)).toContainEqual(expect.objectContaining({ code, at }));
  });

  test('is no word of a mail that is none: its link cannot be named there', () => {
    expect(problemsOf({ do: 'mail', to: 'visitor', template: 'news' })).toContainEqual(
      expect.objectContaining({ code: 'template-does-not-fit' }),
    );
  });
});
