import { describe, expect, test } from '@jest/globals';
import type { DecisionKind, DecisionShape } from '@haycart/api';
import { aboutDecision } from '../components/decision-line';
import { effectOf, questionOf, storyOf } from './decision-words';

function decision(kind: DecisionKind, more: Partial<DecisionShape> = {}): DecisionShape {
  return {
    id: 'a',
    kind,
    subject: 'Dealer application',
    detail: 'Last name is needed.',
    count: 3,
    at: '2027-04-01T09:00:00.000Z',
    like: kind,
    actions: ['leave'],
    intake: null,
    routes: [],
    examples: [],
    answer: null,
    drift: null,
    pair: null,
    which: null,
    repair: null,
    ...more,
  };
}

const since = '2027-04-01T09:00:00.000Z';
const renamed = decision('renamed', {
  detail: 'last → surname',
  drift: {
    told: {
      kind: 'renamed',
      field: 'person.last',
      became: 'person.surname',
      since,
      because: ['it stands in the same place'],
    },
    fields: [],
  },
  repair: { routes: [{ id: 'r', name: 'Dealers', changes: [] }], runsAgain: 1, fillsIn: 2, groups: [] },
});

describe('a decision in words', () => {
  test.each<[DecisionShape, string]>([
    [renamed, 'Is “surname” the new name of “last”?'],
    [
      decision('stopped', { drift: { told: { kind: 'stopped', field: 'crop', since, missed: 4 }, fields: [] } }),
      '“crop” does not come any more',
    ],
    [
      decision('appeared', { drift: { told: { kind: 'appeared', field: 'a["b.c"]', since, filled: 4 }, fields: [] } }),
      'A field came that nothing reads: “b.c”',
    ],
    [
      decision('new-answer', { answer: { record: 'contact', label: 'Growing for', value: 'Moss', options: [] } }),
      'What does “Moss” mean?',
    ],
    [decision('failed'), '3 runs of Dealer application failed'],
    [decision('held', { count: 1 }), '1 run of Dealer application waits'],
    [decision('paused'), '3 submissions wait for Dealer application'],
    [decision('set-aside', { count: 1 }), 'Did a person send this?'],
    [decision('set-aside'), 'Did a person send these 3?'],
  ])('asks what is to be decided: %#', (shape, question) => {
    expect(questionOf(shape)).toBe(question);
    expect(storyOf(shape)).toMatch(/\.$/);
    expect(effectOf(shape)).toMatch(/\.$/);
  });

  test('says what a repair does, with its numbers', () => {
    expect(effectOf(renamed)).toBe(
      'Repair: 1 route reads both names, 1 run goes again, blanks are filled in 2 records. Left: the routes stay as they are.',
    );
    expect(effectOf({ ...renamed, repair: { ...renamed.repair!, runsAgain: 0, fillsIn: 0 } })).toBe(
      'Repair: 1 route reads both names. Left: the routes stay as they are.',
    );
  });

  test.each<[DecisionKind, string]>([
    ['failed', 'Dealer application: Last name is needed.'],
    ['renamed', 'Last name is needed., Dealer application'],
    ['paused', 'Dealer application'],
  ])('is told from others of its kind: %s', (kind, line) => {
    expect(aboutDecision(decision(kind))).toBe(line);
  });
});
