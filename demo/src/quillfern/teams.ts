import type { Person } from '@haycart/core';

/** Who works at Quillfern, and on which desk. */
export const TEAMS = [
  { key: 'builds-north', name: 'Builds North', people: ['Robin Nye', 'Idris Vale', 'Morag Sel'] },
  { key: 'builds-south', name: 'Builds South', people: ['Sunita Kaur', 'Tomos Pugh'] },
  { key: 'continental', name: 'Continental', people: ['Marlies Tol', 'Jonas Ebel', 'Anneke Prins'] },
  { key: 'care-desk', name: 'Care desk', people: ['Hanne Lie', 'Corin Ash'] },
  { key: 'dealer-desk', name: 'Dealer desk', people: ['Farid Amrani', 'Bryony Tew'] },
];

type Details = Pick<Person, 'regions' | 'languages' | 'timeZone' | 'hours' | 'capacity'>;

const OFFICE = { from: '09:00', to: '17:30' };
const WEEK: Person['hours'] = {
  mon: OFFICE,
  tue: OFFICE,
  wed: OFFICE,
  thu: OFFICE,
  fri: { from: '09:00', to: '15:00' },
};
const HALF: Person['hours'] = { mon: OFFICE, tue: OFFICE, wed: { from: '09:00', to: '12:30' } };

/** Where and when the people of each team work. */
export const TEAM_DETAILS: Record<string, Details> = {
  'builds-north': { regions: ['GB'], languages: ['en'], timeZone: 'Europe/London', hours: WEEK, capacity: 60 },
  'builds-south': { regions: ['GB', 'IE'], languages: ['en'], timeZone: 'Europe/London', hours: WEEK, capacity: 60 },
  continental: {
    regions: ['NL', 'DE'],
    languages: ['nl', 'de', 'en'],
    timeZone: 'Europe/Amsterdam',
    hours: WEEK,
    capacity: 45,
  },
  'care-desk': {
    regions: ['GB', 'IE', 'NL'],
    languages: ['en', 'nl'],
    timeZone: 'Europe/London',
    hours: HALF,
    capacity: 30,
  },
  'dealer-desk': {
    regions: ['GB', 'NL', 'DE', 'CA'],
    languages: ['en', 'fr'],
    timeZone: 'America/Toronto',
    hours: WEEK,
    capacity: 40,
  },
};

export function personKey(name: string): string {
  return name.toLowerCase().replace(/ /g, '-');
}
