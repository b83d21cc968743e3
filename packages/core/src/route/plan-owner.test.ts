import { describe, expect, test } from '@jest/globals';
import { destination as example, person } from '../testing/example';
import { plannedOwner } from './plan-owner';

const destination = {
  ...example,
  fields: example.fields.map((field) =>
    field.key === 'owner'
      ? {
          ...field,
          options: ['ida', 'bo', 'cy'].map((key) => ({ key, label: key, ...(key === 'cy' ? { retired: true } : {}) })),
        }
      : field,
  ),
  teams: { north: ['cy', 'bo', 'ida'], gone: ['cy'] },
};
const owned = (write: Partial<typeof person>, values = {}, id = 'submission', visit = {}) =>
  plannedOwner({ ...person, ...write }, values, { id, visit }, destination);

describe('an owner', () => {
  test('is given where there is none, and kept where there is one', () => {
    expect(owned({ owner: { person: 'ida' } }).values).toEqual({ owner: 'ida' });
    expect(owned({ owner: { person: 'ida' } }, { owner: 'bo' })).toEqual({ values: {}, fields: [], problems: [] });
  });

  test('is told to be missing when the person or the team can take nothing', () => {
    for (const owner of [{ person: 'cy' }, { person: 'nobody' }, { team: 'gone' }, { team: 'nowhere' }])
      expect(owned({ owner })).toMatchObject({ values: {}, problems: [{ code: 'no-owner' }] });
  });

  test('from a team is the same for one submission, and each gets about the same share of many', () => {
    const owner = { team: 'north' };
    const given = Array.from({ length: 2_000 }, (_, n) => owned({ owner }, {}, `0195-${n}`).values.owner);
    expect(new Set(given)).toEqual(new Set(['ida', 'bo']));
    expect(given.filter((one) => one === 'ida').length).toBeGreaterThan(900);
    expect(given.filter((one) => one === 'bo').length).toBeGreaterThan(900);
    expect(owned({ owner }, {}, 'x').values).toEqual(owned({ owner }, {}, 'x').values);
  });

  test('is the colleague who entered it, otherwise who is named for what nobody entered', () => {
    const by = (enteredBy: string | undefined, otherwise?: { person: string } | { team: string }) =>
      owned({ owner: { enteredBy: true, otherwise } }, {}, 'x', enteredBy ? { enteredBy } : {});
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
