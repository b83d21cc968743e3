import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { JsonObject } from '../json';
import { driftOf, type Drift } from './drift';
import { emptyProfile, ProfileLearner } from './profile';

/** What has changed after payloads came, one an hour. */
function driftAfter(...payloads: JsonObject[]): Drift[] {
  const learner = new ProfileLearner(emptyProfile());
  payloads.forEach((payload, index) => learner.learn(payload, new Date(Date.UTC(2027, 3, 1, index)).toISOString()));
  return driftOf(learner.profile);
}

const times = (count: number, payload: (index: number) => object): JsonObject[] =>
  Array.from({ length: count }, (_, index) => payload(index) as JsonObject);

const inWords = (drift: readonly Drift[]) =>
  drift.map((one) => ('became' in one ? `${one.field} → ${one.became}` : `${one.kind} ${one.field}`));

describe('a field was probably renamed', () => {
  test.each<[string, JsonObject, JsonObject, string]>([
    [
      'another word for it, in the same place',
      { person: { last: 'Oduya' } },
      { person: { surname: 'Ruyter' } },
      'person.last → person.surname',
    ],
    [
      'another word for it, elsewhere',
      { mail: 'a@weir.example' },
      { sender: { courriel: 'b@weir.example' } },
      'mail → sender.courriel',
    ],
    ['spelt nearly alike', { note: 'Is there room?' }, { notes: 'None' }, 'note → notes'],
    ['its name inside a longer one', { budget: '£ 900' }, { total_budget: '£ 1,200' }, 'budget → total_budget'],
    [
      'a question that is asked in nearly the same words',
      { a: [{ id: 'q1', question: 'Which crop?', answer: 'Figs' }] },
      { a: [{ id: 'q1', question: 'Which crops?', answer: 'Vines' }] },
      'a.which_crop → a.which_crops',
    ],
  ])('%s', (_, before, after, told) => {
    const steady = (index: number) => ({ id: `sub_00${index}ab12cd`, page: 'https://weir.example/a' });
    const came = [
      ...times(4, (index) => ({ ...steady(index), ...before })),
      ...times(2, (index) => ({ ...steady(index), ...after })),
    ];
    expect(inWords(driftAfter(...came))).toEqual([told]);
  });

  test('after one submission with each of its names', () => {
    expect(driftAfter({ email: 'ada@weir.example', name: 'Ada' }, { e_post: 'ada@weir.example', name: 'Ada' })).toEqual(
      [
        expect.objectContaining({
          kind: 'renamed',
          field: 'email',
          became: 'e_post',
          since: '2027-04-01T01:00:00.000Z',
        }),
      ],
    );
  });

  test('by the values that both have, where the names say nothing', () => {
    const crops = ['figs', 'vines', 'ferns'];
    const came = [
      ...times(9, (index) => ({ x17: crops[index % 3]!, id: index })),
      ...times(3, (index) => ({ cultivation: crops[index % 3]!, id: index })),
    ];
    const [drift] = driftAfter(...came);
    expect(drift).toMatchObject({ kind: 'renamed', field: 'x17', became: 'cultivation' });
    expect(drift).toHaveProperty('because', expect.arrayContaining(['they have values in common']));
  });

  test.each<[string, JsonObject[]]>([
    ['when both still come', [...times(4, () => ({ note: 'a' })), ...times(4, () => ({ note: 'a', notes: 'b' }))]],
    ['when values of another kind come', [...times(4, () => ({ mail: 'a@weir.example' })), { mails: 'three' }]],
    [
      'when the one ended long before the other began',
      [...times(4, () => ({ note: 'a' })), ...times(9, () => ({ id: 1 })), ...times(3, () => ({ id: 1, notes: 'b' }))],
    ],
    [
      'when the field came seldom and is missing once',
      [{ note: 'a' }, ...times(9, () => ({ id: 1 })), { note: 'a' }, { id: 1, notes: 'b' }],
    ],
    ['when it was back already', [...times(4, () => ({ note: 'a' })), { notes: 'b' }, { note: 'c' }]],
  ])('but not %s', (_, came) => {
    expect(inWords(driftAfter(...came)).filter((words) => words.includes('→'))).toEqual([]);
  });

  test('and each of several that were renamed at once goes with its own', () => {
    const came = [
      ...times(6, (index) => ({ first_name: 'Ada', last_name: 'Weir', phone: `07700 9003${10 + index}` })),
      ...times(2, (index) => ({ given_name: 'Bo', family_name: 'Marsh', mobile: `07700 9004${10 + index}` })),
    ];
    expect(inWords(driftAfter(...came)).sort()).toEqual([
      'first_name → given_name',
      'last_name → family_name',
      'phone → mobile',
    ]);
  });
});

describe('a field', () => {
  test('stopped, once its absence is no accident', () => {
    const before = times(20, () => ({ id: 1, crop: 'figs' }));
    expect(driftAfter(...before, ...times(2, () => ({ id: 1 })))).toEqual([]);
    expect(driftAfter(...before, ...times(4, () => ({ id: 1 })))).toEqual([
      { kind: 'stopped', field: 'crop', since: '2027-04-01T19:00:00.000Z', missed: 4 },
    ]);
  });

  test('that comes seldom does not stop soon', () => {
    const came = times(60, (index) => (index < 50 && index % 10 === 0 ? { id: 1, crop: 'figs' } : { id: 1 }));
    expect(driftAfter(...came)).toEqual([]);
  });

  test('that comes blank has stopped as well', () => {
    const came = times(30, (index) => ({ crop: index < 25 ? 'figs' : '' }));
    expect(inWords(driftAfter(...came))).toEqual(['stopped crop']);
  });

  test('appeared in an intake that has settled, not in a new one', () => {
    const later = times(4, () => ({ id: 1, referral: 'a friend' }));
    expect(inWords(driftAfter(...times(30, () => ({ id: 1 })), ...later))).toEqual(['appeared referral']);
    expect(driftAfter(...times(3, () => ({ id: 1 })), ...later)).toEqual([]);
  });

  test('that one sender in a hundred makes up has not appeared', () => {
    const came = times(120, (index) =>
      index === 60 || index === 80 || index === 100 ? { id: 1, junk: 'x' } : { id: 1 },
    );
    expect(driftAfter(...came)).toEqual([]);
  });

  test('changed the kind of its values', () => {
    const came = times(40, (index) => ({ bays: index < 34 ? index : 'about a dozen' }));
    expect(driftAfter(...came)).toEqual([
      { kind: 'changed', field: 'bays', since: '2027-04-02T15:00:00.000Z', from: 'whole-number', to: 'text' },
    ]);
  });

  test('goes to and fro within a family of kinds without having changed', () => {
    expect(driftAfter(...times(40, (index) => ({ area: index < 34 ? index : index + 0.5 })))).toEqual([]);
    expect(driftAfter(...times(40, (index) => ({ remark: index < 34 ? 'Fine.' : '12' })))).toEqual([]);
  });
});

test('a sender that keeps to its fields never drifts', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.stringMatching(/^[a-z]{3,8}$/), { minLength: 1, maxLength: 8 }),
      fc.integer({ min: 1, max: 60 }),
      (names, count) => {
        const payload = Object.fromEntries(names.map((name) => [name, `${name} of somebody`]));
        expect(driftAfter(...times(count, () => payload))).toEqual([]);
      },
    ),
    { numRuns: 40 },
  );
});

test('whatever arrives, a field is told once at most, and working it out never fails', () => {
  const value = fc.oneof(
    fc.constant(''),
    fc.constantFrom('figs', '12', 'a@weir.example'),
    fc.boolean(),
    fc.string({ maxLength: 5 }),
  );
  const payload = fc.dictionary(
    fc.constantFrom('a', 'ab', 'abc', 'note', 'notes', 'first', 'given', '__proto__'),
    value,
  );
  fc.assert(
    fc.property(fc.array(payload, { maxLength: 60 }), (payloads) => {
      const fields = driftAfter(...payloads).flatMap((one) =>
        'became' in one ? [one.field, one.became] : [one.field],
      );
      expect(new Set(fields).size).toBe(fields.length);
    }),
    { numRuns: 60 },
  );
});
