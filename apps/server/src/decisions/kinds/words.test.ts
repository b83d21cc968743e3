import { describe, expect, test } from '@jest/globals';
import { answerWords } from './answer/answer-decisions';
import { lineOf, type KindOfLine } from './decision-kind';
import { driftWords, repairWords } from './drift/drift-words';
import { runWords } from './run/run-decisions';

const since = '2027-04-01T09:00:00.000Z';
const line = { subject: 'Dealer application', detail: 'Last name is needed.', count: 3 };

describe('a decision in words', () => {
  test.each([
    [
      driftWords({
        ...line,
        told: { kind: 'renamed', field: 'person.last', became: 'person.surname', since, because: ['it stands there'] },
      }),
      'Is “surname” the new name of “last”?',
    ],
    [
      driftWords({ ...line, told: { kind: 'stopped', field: 'crop', since, missed: 4 } }),
      '“crop” does not come any more',
    ],
    [
      driftWords({ ...line, told: { kind: 'appeared', field: 'a["b.c"]', since, filled: 4 } }),
      'A field came that nothing reads: “b.c”',
    ],
    [answerWords({ ...line, label: 'Growing for', value: 'Moss' }), 'What does “Moss” mean?'],
    [runWords({ ...line, kind: 'failed' }), '3 runs of Dealer application failed'],
    [runWords({ ...line, kind: 'held', count: 1 }), '1 run of Dealer application waits'],
    [runWords({ ...line, kind: 'paused' }), '3 submissions wait for Dealer application'],
  ])('asks what is to be decided: %#', (words, question) => {
    expect(words.question).toBe(question);
    expect(words.story).toMatch(/\.$/);
  });

  test('says what a repair does, with its numbers', () => {
    const repair = { routes: [{ id: 'r', name: 'Dealers', changes: [] }], runsAgain: 1, fillsIn: 2, groups: [] };
    expect(repairWords('Repair', { kind: 'renamed' }, repair)).toBe(
      'Repair: 1 route reads both names, 1 run goes again, blanks are filled in 2 records. Left: the routes stay as they are.',
    );
    expect(repairWords('Read it', { kind: 'appeared' }, { ...repair, runsAgain: 0, fillsIn: 0 })).toBe(
      'Read it: 1 route reads it. Left: the routes stay as they are.',
    );
  });

  test('is told from others of its kind as the kind says', () => {
    const kind: KindOfLine = {
      kind: 'k',
      title: 'K',
      rank: 5,
      about: ({ subject, detail }) => `${detail}, ${subject}`,
    };
    const facts = { id: 'k.1', ...line, at: since, like: 'k' };
    expect(lineOf(kind, facts)).toEqual({
      ...facts,
      kind: 'k',
      title: 'K',
      rank: 5,
      isFailure: false,
      inOrder: false,
      about: 'Last name is needed., Dealer application',
    });
  });
});
