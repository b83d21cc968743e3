import { expect, test } from '@jest/globals';
import { withChoices, type Choices } from './choices';
import type { FieldDefinition } from './field-definition';

const choices: Choices = {
  people: [
    { key: 'robin', name: 'Robin Nye', email: 'robin.nye@quillfern.example', active: true },
    { key: 'tomos', name: 'Tomos Pugh', email: 'tomos.pugh@quillfern.example', active: false },
  ],
  tags: [{ key: 'press', label: 'Press' }],
  lists: [{ key: 'news', label: 'Newsletter' }],
};
const field = (key: string, type: FieldDefinition['type'], more: Partial<FieldDefinition> = {}): FieldDefinition => ({
  record: 'contact',
  key,
  label: key,
  type,
  builtIn: false,
  required: false,
  ...more,
});

test('a field of people offers all of them by name and address; who left can be seen and not be chosen', () => {
  const [owner] = withChoices([field('owner', 'person')], choices);
  expect(owner!.options).toEqual([
    { key: 'robin', label: 'Robin Nye', aliases: ['robin.nye@quillfern.example'] },
    { key: 'tomos', label: 'Tomos Pugh', aliases: ['tomos.pugh@quillfern.example'], retired: true },
  ]);
});

test('tags and lists offer those of the workspace, as copies', () => {
  const [tags, lists] = withChoices(
    [field('tags', 'several-of', { builtIn: true }), field('lists', 'several-of', { builtIn: true })],
    choices,
  );
  expect([tags!.options, lists!.options]).toEqual([choices.tags, choices.lists]);
  tags!.options!.push({ key: 'new', label: 'New' });
  expect(choices.tags).toHaveLength(1);
});

test('a field of one’s own that is called tags keeps its own options, and others stay as they are', () => {
  const own = field('tags', 'several-of', { options: [{ key: 'x', label: 'X' }] });
  const plain = field('first_name', 'text');
  expect(withChoices([own, plain], choices)).toEqual([own, plain]);
});
