import { expect, test } from '@jest/globals';
import type { RouteDefinition } from '../../definition/route-definition';
import { route } from '../../testing/example';
import type { Value } from '../../value/value';
import { placesNamed, replacePlace } from './places';

test('a route names the places that it gives outright, and only those are replaced', () => {
  const [named] = placesNamed(route);
  expect(named).toEqual({ pipeline: 'new-builds', stage: 'enquiry' });
  const to = { pipeline: 'care', stage: 'called' };
  expect(placesNamed(replacePlace(route, named!, to))).toEqual([to]);
  expect(replacePlace(route, { pipeline: 'new-builds', stage: 'quote' }, to)).toEqual(route);

  const byAnswer = structuredClone(route);
  byAnswer.writes.find(({ place }) => place)!.place!.stage = { parts: [{ answer: 'stage' }] };
  expect(placesNamed(byAnswer)).toEqual([]);
  expect(replacePlace(byAnswer, named!, to)).toEqual(byAnswer);
});

test('a route names the places that the rows of its tables say, and each is replaced where it can stand', () => {
  const decided = (output: string) => ({ parts: [{ decision: 'Where', output }] });
  const deciding = (pipeline: Value): RouteDefinition => ({
    ...route,
    decisions: [
      {
        name: 'Where',
        inputs: [],
        outputs: [
          { name: 'pipeline', type: 'pipeline' },
          { name: 'stage', type: 'stage' },
        ],
        rows: [
          { when: [], then: { pipeline: 'new-builds', stage: 'enquiry' } },
          { when: [], then: { pipeline: 'care', stage: 'called' } },
          { when: [], then: {} },
        ],
        otherwise: { pipeline: 'new-builds', stage: 'enquiry' },
      },
    ],
    writes: route.writes.map((write) =>
      write.place ? { ...write, place: { ...write.place, pipeline, stage: decided('stage') } } : write,
    ),
  });
  const [from, care, design] = [
    { pipeline: 'new-builds', stage: 'enquiry' },
    { pipeline: 'care', stage: 'called' },
    { pipeline: 'new-builds', stage: 'design' },
  ];
  const both = deciding(decided('pipeline'));
  expect(placesNamed(both)).toEqual([from, care, from]);
  expect(placesNamed(replacePlace(both, from, care))).toEqual([care, care, care]);
  const fixed = deciding({ parts: [{ text: 'new-builds' }] });
  expect(placesNamed(replacePlace(fixed, from, design))).toEqual([design, { ...care, pipeline: 'new-builds' }, design]);
  // A stage of another pipeline cannot stand in a pipeline that is fixed.
  expect(replacePlace(fixed, from, care)).toEqual(fixed);
});
