import { describe, expect, test } from '@jest/globals';
import { destination, fill, person, plan, routeOf, submission } from '../../testing/example';
import type { Destination } from '../../destination/destination';

const translated = (given: unknown, parameters: Record<string, unknown>, where: Destination = destination) => {
  const value = { parts: [{ answer: 'growing' }], finishers: [{ use: 'translate', with: parameters }] };
  const fills = [fill('email', { parts: [{ answer: 'email' }] }), fill('growing_for', value)];
  const route = routeOf({ ...person, links: [], fills });
  return plan(route, submission({ email: 'ada@weir.example', growing: given as string }), undefined, where);
};
const growingFor = (result: ReturnType<typeof plan>) => Object.values(result.diff.created)[0]?.values.growing_for;
const TABLE = { 'a school garden': 'school' };

describe('a translation table', () => {
  test('puts an option in the place of a value, whatever its capitals and spaces', () => {
    expect(growingFor(translated(' A  School garden ', { table: TABLE }))).toBe('school');
  });

  test('holds the run for a value that it does not have, and says which', () => {
    expect(translated('ferns', { table: TABLE })).toMatchObject({
      outcome: 'hold',
      reason: {
        code: 'untranslated',
        text: 'Growing for: “ferns” is not in the translation table. Add it there, and run this again.',
      },
      diff: { created: {} },
    });
  });

  test.each([
    ['leave blank', undefined],
    ['use the option', 'school'],
  ])('or goes on: %s', (otherwise, value) => {
    const result = translated('ferns', { table: TABLE, otherwise, option: 'school' });
    expect([result.outcome, growingFor(result)]).toEqual(['write', value]);
  });

  test('keeps it as it is, which must be an option then', () => {
    expect(growingFor(translated('Teaching garden', { table: TABLE, otherwise: 'keep as it is' }))).toBe('school');
    expect(translated('ferns', { otherwise: 'keep as it is' }).problems[0]?.code).toBe('value-does-not-fit');
  });

  test('makes it an option of the field, once, with a key of its own', () => {
    const result = translated('Tree ferns', { otherwise: 'add as option' });
    expect(growingFor(result)).toBe('tree_ferns');
    expect(result.newOptions).toEqual([
      { record: 'contact', field: 'growing_for', option: { key: 'tree_ferns', label: 'Tree ferns' } },
    ]);
    expect(translated('teaching garden', { otherwise: 'add as option' }).newOptions).toBeUndefined();
  });

  test('adds none that is too long, none to a full list, and none where nothing is written', () => {
    const full = {
      ...destination,
      fields: destination.fields.map((field) =>
        field.key === 'growing_for'
          ? { ...field, options: Array.from({ length: 5_000 }, (_, n) => ({ key: `o${n}`, label: `Option ${n}` })) }
          : field,
      ),
    };
    for (const result of [
      translated('x'.repeat(150), { otherwise: 'add as option' }),
      translated('ferns', { otherwise: 'add as option' }, full),
    ]) {
      expect(result.newOptions).toBeUndefined();
      expect(result.problems[0]?.code).toBe('value-does-not-fit');
    }
  });
});
