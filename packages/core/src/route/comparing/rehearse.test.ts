import { expect, test } from '@jest/globals';
import { destination, known, maren, plan, route, routeOf, sale, submission } from '../../testing/example';
import { rehearse } from './rehearse';

const surroundings = { destination, intakes: [{ key: 'survey', name: 'Site survey request' }] };

test('a rehearsal is the plan of the live run, with ids that tell what would be made', () => {
  const came = submission(maren);
  const { account, problems, ...shown } = rehearse(route, came, known(), surroundings);
  const { problems: _, ...planned } = plan(route, came);
  const renamed = JSON.stringify(planned).replaceAll(/(firm|person|sale) of submission-\d+/g, 'new:$1');
  expect(JSON.parse(JSON.stringify(shown))).toEqual(JSON.parse(renamed));
  expect(account[0]!.text).toContain('Site survey request');
  expect(problems).toEqual([]);
});

test('what is wrong with the route stands beside what the submission comes to', () => {
  const { place: _, ...nowhere } = sale;
  const shown = rehearse(routeOf({ ...nowhere, links: [] }), submission({ bays: 'many' }), known(), surroundings);
  expect(shown.problems.map(({ code }) => code)).toEqual(expect.arrayContaining(['no-place', 'unknown-write']));
});

test('a sample of an intake that is not there is a made-up one', () => {
  const { account } = rehearse(route, submission(maren, { intake: 'gone' }), known(), surroundings);
  expect(account[0]!.text).toContain('a made-up sample');
});
