import { describe, expect, test } from '@jest/globals';
import { answer, destination, fill, person, plan, routeOf, submission } from '../../testing/example';
import type { FinisherUse } from '../../value/value';
import { unmappedAnswers, withTranslation } from './unmapped';

const table: FinisherUse = { use: 'translate', with: { table: { school: 'school' } } };
const routeWith = (...finishers: FinisherUse[]) =>
  routeOf({
    ...person,
    links: [],
    fills: [fill('email', answer('email')), fill('growing_for', { parts: [{ answer: 'growing' }], finishers })],
  });
const answersOf = (growing: string, ...finishers: FinisherUse[]) =>
  unmappedAnswers(plan(routeWith(...finishers), submission({ email: 'a@weir.example', growing })), destination);

describe('values that no option stands for', () => {
  test.each<[string, string, FinisherUse[], string[]]>([
    ['one that was left out', 'Rooftop café', [], ['Rooftop café']],
    ['one that the run waits for', 'Rooftop café', [table], ['Rooftop café']],
    ['as it is after the finishers', ' rooftop  CAFÉ ', [{ use: 'collapse' }], ['rooftop CAFÉ']],
    ['none where an option has the name', 'school garden', [], []],
    ['none where the table has it', 'school', [table], []],
    ['none where nothing came', '', [], []],
    ['none of a length that is no name', 'x'.repeat(300), [], []],
  ])('%s', (_, growing, finishers, values) => {
    expect(answersOf(growing, ...finishers)).toEqual(
      values.map((value) => ({ as: 'person', field: 'growing_for', value })),
    );
  });
});

describe('a value gets a line in the translation table', () => {
  const about = { as: 'person', field: 'growing_for', value: 'Rooftop café' };

  test('beside those that are there, so that the run goes on', () => {
    const translated = withTranslation(routeWith(table), about, 'school')!;
    const result = plan(translated, submission({ email: 'a@weir.example', growing: 'rooftop café' }));
    expect(result.outcome).toBe('write');
    expect(Object.values(result.diff.created)[0]!.values.growing_for).toBe('school');
    expect(withTranslation(routeWith(table), about, '')!.writes[0]!.fills[1]!.value.finishers).toEqual([
      { use: 'translate', with: { table: { school: 'school', 'Rooftop café': '' } } },
    ]);
  });

  test('not where there is no table, no such field, no such write', () => {
    expect(withTranslation(routeWith(), about, 'school')).toBeNull();
    expect(withTranslation(routeWith(table), { ...about, field: 'email' }, 'school')).toBeNull();
    expect(withTranslation(routeWith(table), { ...about, as: 'firm' }, 'school')).toBeNull();
  });
});
