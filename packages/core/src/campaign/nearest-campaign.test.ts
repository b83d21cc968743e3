import { expect, test } from '@jest/globals';
import { nearestCampaign } from './nearest-campaign';

const CAMPAIGNS = [
  { code: 'spring-2026', name: 'Spring newsletter' },
  { code: 'sprint-2026', name: 'Team sprint' },
  { code: 'fair', name: 'Garden fair' },
];

test.each([
  ['Sprng 2026', 'spring-2026'],
  ['spring_2026', 'spring-2026'],
  ['sprints-2026', 'sprint-2026'],
  ['spring newsleter', 'spring-2026'],
  ['gardenfair', 'fair'],
  ['fare', undefined],
  ['autumn-2026', undefined],
  ['', undefined],
])('a link that says “%s” was meant for %s', (said, code) => expect(nearestCampaign(said, CAMPAIGNS)?.code).toBe(code));
