import { describe, expect, test } from '@jest/globals';
import { destination as example, person, routeOf } from '../testing/example';
import { EFFECT_KINDS, effectOf } from './registry';

const options = [{ key: 'show', label: 'Show' }];
const destination = {
  ...example,
  templates: [
    { key: 'thanks', name: 'Thank you', subject: 'Thank you', text: 'We write soon.', html: null },
    { key: 'confirm', name: 'Please confirm', subject: 'Confirm', text: '{{ confirm.link }}', html: null },
  ],
  fields: example.fields.map((field) =>
    field.key === 'tags' || field.key === 'lists' ? { ...field, options } : field,
  ),
};

describe.each(EFFECT_KINDS.map((kind) => [kind.do, kind] as const))('%s', (_, kind) => {
  const { settings, words } = kind.example;
  const around = { route: { ...routeOf(person), followUps: [settings] }, destination };

  test('has an example of the right shape, without a problem, that it tells in words', () => {
    expect(kind.shape.parse(settings)).toEqual(settings);
    expect(effectOf(settings)).toBe(kind);
    expect(kind.check(settings, around)).toEqual([]);
    expect(kind.describe(settings, around)).toBe(words);
  });

  test('refuses settings that it does not know', () => {
    expect(kind.shape.safeParse({ ...settings, unheard: 1 }).success).toBe(false);
  });
});
