import { expect, test } from '@jest/globals';
import { person, routeOf } from '../testing/example';
import { withLabelMerged } from './with-label-merged';

const text = (key: string) => ({ parts: [{ text: key }] });
const answered = { parts: [{ answer: 'show' }] };

test('a label that took the place of another is named in its place, of its kind alone', () => {
  const route = {
    ...routeOf(person),
    followUps: [
      { do: 'tag', on: 'person', tags: ['show', 'press'] },
      { do: 'tag', on: 'person', add: [text('show'), answered], remove: [text('show')] },
      { do: 'list', on: 'person', lists: ['show'] },
      { do: 'post', to: 'https://hooks.example' },
    ],
  };
  expect(withLabelMerged(route, 'tags', 'show', 'stand').followUps).toEqual([
    { do: 'tag', on: 'person', tags: ['stand', 'press'] },
    { do: 'tag', on: 'person', add: [text('stand'), answered], remove: [text('stand')] },
    { do: 'list', on: 'person', lists: ['show'] },
    { do: 'post', to: 'https://hooks.example' },
  ]);
  expect(withLabelMerged(routeOf(person), 'tags', 'show', 'stand')).toEqual(routeOf(person));
});

test('and so it is in what tables say', () => {
  const table = (tag: string) => ({
    name: 'Which',
    inputs: [],
    outputs: [
      { name: 'tag', type: 'tag' as const },
      { name: 'word', type: 'text' as const },
    ],
    rows: [{ when: [], then: { tag, word: 'show' } }],
    otherwise: { tag },
  });
  const route = { ...routeOf(person), decisions: [table('show')] };
  expect(withLabelMerged(route, 'tags', 'show', 'stand').decisions).toEqual([table('stand')]);
  expect(withLabelMerged(route, 'lists', 'show', 'stand')).toEqual(route);
});
