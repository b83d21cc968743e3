import type { BandFigures } from '@haycart/api';
import { count } from '../components/format';

/** A station on the way of a submission, with its live figure. */
export interface Station {
  to: string;
  name: string;
  figure: (band: BandFigures) => string;
}

export const STATIONS: Station[] = [
  { to: '/intakes', name: 'Intakes', figure: ({ intakesLive }) => `${count(intakesLive)} live` },
  {
    to: '/submissions',
    name: 'Submissions',
    figure: ({ submissionsToday, waiting }) =>
      `${count(submissionsToday)} today${waiting ? `, ${count(waiting)} waiting` : ''}`,
  },
  {
    to: '/routes',
    name: 'Routes',
    figure: ({ routesLive, routesDraft }) =>
      `${count(routesLive)} live${routesDraft ? `, ${count(routesDraft)} draft` : ''}`,
  },
  { to: '/records', name: 'Records', figure: ({ recordsToday }) => `${count(recordsToday)} new` },
  { to: '/pipeline', name: 'Pipeline', figure: ({ dealsMovedToday }) => `${count(dealsMovedToday)} moved` },
  { to: '/sources', name: 'Sources', figure: ({ sourcesToday }) => `${count(sourcesToday)} today` },
];

const ELSEWHERE: [string, string][] = [
  ['/tasks', 'Tasks'],
  ['/fairness', 'Who got what'],
  ['/balance', 'Balance'],
  ['/decide', 'To decide'],
  ['/set-up', 'Set up'],
  ['/account', 'Your account'],
];

/** What the place at an address is called: a station, or one beside the way. */
export function placeAt(pathname: string): { name: string; station: Station | undefined } {
  const station = STATIONS.find(({ to }) => pathname === to || pathname.startsWith(`${to}/`));
  const name = station?.name ?? ELSEWHERE.find(([to]) => pathname.startsWith(to))?.[1] ?? 'Home';
  return { name, station };
}
