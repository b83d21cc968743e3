import { expect, test } from '@jest/globals';
import { route } from '../../testing/example';
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
