import { describe, expect, test } from '@jest/globals';
import { destination as example, maren, person, routeOf, submission } from '../testing/example';
import { accountOf } from './account';
import { routeChanges } from './changes';
import { describeRoute } from './describe';
import { KnownRecords } from './known-records';
import { plannedMarks } from './plan-marks';
import { planRun } from './plan-run';

const destination = {
  ...example,
  fields: example.fields.map((field) =>
    field.key === 'owner'
      ? {
          ...field,
          options: ['ida', 'bo', 'cy'].map((key) => ({ key, label: key, ...(key === 'cy' ? { retired: true } : {}) })),
        }
      : field.key === 'tags'
        ? {
            ...field,
            options: [
              { key: 'show', label: 'Show' },
              { key: 'press', label: 'Press' },
            ],
          }
        : field,
  ),
  teams: { north: ['cy', 'bo', 'ida'], gone: ['cy'] },
};
const marks = (
  write: Partial<typeof person>,
  values = {},
  followUps: Parameters<typeof plannedMarks>[1] = [],
  id = 'submission',
  visit = {},
) => plannedMarks({ ...person, ...write }, followUps, values, { id, visit }, destination);

describe('an owner', () => {
  test('is given where there is none, and kept where there is one', () => {
    expect(marks({ owner: { person: 'ida' } }).values).toEqual({ owner: 'ida' });
    expect(marks({ owner: { person: 'ida' } }, { owner: 'bo' })).toEqual({ values: {}, fields: [], problems: [] });
  });

  test('is told to be missing when the person or the team can take nothing', () => {
    for (const owner of [{ person: 'cy' }, { person: 'nobody' }, { team: 'gone' }, { team: 'nowhere' }])
      expect(marks({ owner })).toMatchObject({ values: {}, problems: [{ code: 'no-owner' }] });
  });

  test('from a team is the same for one submission, and each gets about the same share of many', () => {
    const owner = { team: 'north' };
    const given = Array.from({ length: 2_000 }, (_, n) => marks({ owner }, {}, [], `0195-${n}`).values.owner);
    expect(new Set(given)).toEqual(new Set(['ida', 'bo']));
    expect(given.filter((one) => one === 'ida').length).toBeGreaterThan(900);
    expect(given.filter((one) => one === 'bo').length).toBeGreaterThan(900);
    expect(marks({ owner }, {}, [], 'x').values).toEqual(marks({ owner }, {}, [], 'x').values);
  });

  test('is the colleague who entered it, otherwise who is named for what nobody entered', () => {
    const by = (enteredBy: string | undefined, otherwise?: { person: string } | { team: string }) =>
      marks({ owner: { enteredBy: true, otherwise } }, {}, [], 'x', enteredBy ? { enteredBy } : {});
    expect(by('bo').values).toEqual({ owner: 'bo' });
    expect(by('bo', { person: 'ida' }).values).toEqual({ owner: 'bo' });
    expect(by(undefined, { person: 'ida' }).values).toEqual({ owner: 'ida' });
    expect(by('cy', { person: 'ida' }).values).toEqual({ owner: 'ida' });
    expect(by(undefined).problems).toMatchObject([
      { code: 'no-owner', text: 'The contact has no owner: no colleague entered it.' },
    ]);
    expect(by(undefined, { team: 'gone' }).problems[0]!.text).toContain('the team “gone” is gone');
  });
});

test('tags are added to those that are there, once, and what is gone is said', () => {
  const followUps = [
    { do: 'tag' as const, on: 'person', tags: ['show', 'press', 'lost'] },
    { do: 'tag' as const, on: 'somebody-else', tags: ['press'] },
  ];
  const added = marks({}, { tags: ['press'] }, followUps);
  expect(added.values).toEqual({ tags: ['press', 'show'] });
  expect(added.problems).toMatchObject([{ code: 'unknown-mark' }]);
  expect(marks({}, added.values, followUps).fields).toEqual([]);
});

describe('a route that gives an owner and adds tags', () => {
  const plain = routeOf({ ...person, links: [] });
  const marking = {
    ...routeOf({ ...person, links: [], owner: { person: 'ida' } }),
    followUps: [{ do: 'tag' as const, on: 'person', tags: ['show'] }],
  };
  const names = { destination, intakes: [{ key: 'survey', name: 'Survey' }] };

  test('says so in words, and what is different from one that does not', () => {
    expect(describeRoute(marking, names).followUp).toBe('the contact goes to ida and the contact is tagged Show');
    expect(describeRoute(plain, names).followUp).toBe('nothing more');
    const entered = routeOf({ ...person, links: [], owner: { enteredBy: true, otherwise: { team: 'north' } } });
    expect(describeRoute(entered, names).followUp).toBe(
      'the contact goes to the colleague who enters it, otherwise somebody of the team north',
    );
    expect(routeChanges(plain, marking, names)).toEqual([
      'The contact gets its owner in another way.',
      'What is added to the records afterwards is another.',
    ]);
  });

  test('tells in the account of a run that it did, and leaves alone what the route leaves', () => {
    const sent = submission(maren);
    const plan = planRun(marking, sent, new KnownRecords([], []), { destination, newIds: { person: 'p' } });
    expect(plan.diff.created.p!.values).toMatchObject({ owner: 'ida', tags: ['show'] });
    const account = accountOf(plan, sent, { destination, intake: 'Survey' });
    expect(
      account.filter(({ step, note }) => step === 'value' && note).map(({ text, note }) => `${text}: ${note}`),
    ).toEqual(['Owner: the route says whose it is', 'Tags: the route adds it']);
  });
});
