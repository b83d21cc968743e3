import type { ConditionTest } from '../condition-test';

export const inTeam: ConditionTest = {
  name: 'in-team',
  label: 'is in the team',
  fits: ['person'],
  wanted: 'team',
  example: { type: 'person', wanted: 'builds-north', meets: 'robin-nye', fails: 'hanne-lie' },
  compare(wanted, { teams }) {
    const people = typeof wanted === 'string' && Object.hasOwn(teams, wanted) ? teams[wanted]?.people : undefined;
    return people
      ? { comparison: { of: 'options', how: 'any', wanted: [...people] }, not: false }
      : 'Choose a team that exists.';
  },
};
