import { expect, test } from '@jest/globals';
import type { FormDefinition } from '@haycart/core';
import type { PublicForm } from './public-forms.service';
import { versionFor, versionTold } from './shown-version';

const definition = (title: string) => ({ title }) as FormDefinition;
const before = { views: 0, starts: 0, sends: 0, seconds: 0 };
const form = {
  id: 'f',
  version: 7,
  form: definition('new'),
  trial: { version: 6, form: definition('earlier'), share: 0.25, since: '2026-03-01T00:00:00Z', before },
} as PublicForm;
const noon = new Date('2026-03-14T12:00:00Z');
const visitors = Array.from({ length: 4_000 }, (_, n) => `10.0.${n >> 8}.${n & 255} browser`);

test('visitors are shared as the trial says, and one visitor sees the same version all day', () => {
  const shown = visitors.map((visitor) => versionFor(form, visitor, noon).version);
  const share = shown.filter((version) => version === 7).length / shown.length;
  expect(share).toBeGreaterThan(0.22);
  expect(share).toBeLessThan(0.28);
  const evening = visitors.map((visitor) => versionFor(form, visitor, new Date('2026-03-14T22:00:00Z')).version);
  expect(evening).toEqual(shown);
});

test('each version comes with its own questions', () => {
  const titles = new Map(
    visitors.map((visitor) => versionFor(form, visitor, noon)).map((v) => [v.version, v.form.title]),
  );
  expect(titles).toEqual(
    new Map([
      [7, 'new'],
      [6, 'earlier'],
    ]),
  );
});

test('without a trial everybody sees the published one', () => {
  expect(versionFor({ ...form, trial: null }, 'anybody', noon).version).toBe(7);
});

test.each([
  ['6', 6],
  ['7', 7],
  ['5', 7],
  ['99', 7],
  ['', 7],
  [{}, 7],
])('a page that tells %j is read as version %i', (told, version) =>
  expect(versionTold(form, told).version).toBe(version),
);
