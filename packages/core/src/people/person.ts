import { jsonPointer } from '../json';
import { error, type Problem } from '../problem';
import { remembered } from '../remembered';

export const WEEKDAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const;
export type Weekday = (typeof WEEKDAYS)[number];
export const WEEKDAY_NAMES: Readonly<Record<Weekday, string>> = {
  mon: 'Monday',
  tue: 'Tuesday',
  wed: 'Wednesday',
  thu: 'Thursday',
  fri: 'Friday',
  sat: 'Saturday',
  sun: 'Sunday',
};

/** From when to when somebody works on each day of the week, as `09:00` in their own time zone; a day left out is free. */
export type WorkingHours = Partial<Record<Weekday, { from: string; to: string }>>;

/** The first and the last day of an absence, both away. */
export interface AwayDates {
  from: string;
  to: string;
}

/** What routing may know of somebody who looks after records. */
export interface Person {
  key: string;
  name: string;
  active: boolean;
  /** ISO 3166-1 alpha-2. */
  regions: string[];
  /** BCP 47. */
  languages: string[];
  /** IANA name; the workspace's own when not said. */
  timeZone: string | null;
  hours: WorkingHours;
  /** E.164: where text messages reach them. */
  phone: string | null;
  /** How many open leads and deals are enough; null: any number. */
  capacity: number | null;
  /** How much of what comes on one day is enough; null: any number. */
  perDay: number | null;
  /** What they know besides languages, in the workspace's own words. */
  skills: string[];
  away: AwayDates[];
}

/** What a skill may be called: it stands between commas. */
export const SKILL = /^[^,\s](?:[^,\n]{0,38}[^,\s])?$/;

/** What is wrong with a person as they would be kept. */
export function checkPerson(person: Omit<Person, 'key' | 'active'>): Problem[] {
  const { name, regions, languages, skills, timeZone, hours, phone, capacity, perDay, away } = person;
  const problems: Problem[] = [];
  if (name.trim() === '') problems.push(error('name-blank', 'A person needs a name.', '/name'));
  regions.forEach((region, index) => {
    if (!/^[A-Z]{2}$/.test(region) || namedRegion(region) === undefined)
      problems.push(
        error('unknown-region', `“${region}” is no country code such as NL.`, jsonPointer(['regions', index])),
      );
  });
  languages.forEach((language, index) => {
    if (!isLanguage(language))
      problems.push(
        error('unknown-language', `“${language}” is no language code such as nl.`, jsonPointer(['languages', index])),
      );
  });
  problems.push(...checkHours({ timeZone, hours }));
  if (phone !== null && !/^\+[1-9]\d{6,14}$/.test(phone))
    problems.push(
      error('not-a-phone', 'Type the number with its country and without spaces, such as +442079460018.', '/phone'),
    );
  skills.forEach((skill, index) => {
    if (!SKILL.test(skill))
      problems.push(
        error('skill-does-not-fit', 'A skill is a word or a few, without commas.', jsonPointer(['skills', index])),
      );
  });
  for (const [key, value] of Object.entries({ capacity, perDay }))
    if (value !== null && !(Number.isInteger(value) && value >= 0 && value <= 100_000))
      problems.push(error('capacity-does-not-fit', 'What is enough is a whole number.', `/${key}`));
  away.forEach(({ from, to }, index) => {
    if (!isDay(from) || !isDay(to) || from > to)
      problems.push(
        error('away-does-not-fit', 'An absence goes from a first to a last day.', jsonPointer(['away', index])),
      );
  });
  return problems;
}

/** What is wrong with the hours in which somebody works, or something is read. */
export function checkHours({ timeZone, hours }: Pick<Person, 'timeZone' | 'hours'>): Problem[] {
  const problems: Problem[] = [];
  if (timeZone !== null && !isTimeZone(timeZone))
    problems.push(
      error('unknown-time-zone', `There is no time zone “${timeZone}”. Choose one such as Europe/Dublin.`, '/timeZone'),
    );
  for (const day of WEEKDAYS) {
    const span = hours[day];
    if (span && !(isTime(span.from) && isTime(span.to) && span.from < span.to))
      problems.push(error('hours-do-not-fit', 'Working hours go from an earlier to a later time.', `/hours/${day}`));
  }
  return problems;
}

/** Whether a name is one of the IANA time zone database. */
export function isTimeZone(name: string): boolean {
  try {
    return name !== '' && Boolean(new Intl.DateTimeFormat('en-GB', { timeZone: name }));
  } catch {
    return false;
  }
}

/** Whether somebody is away on the day that a moment (ISO 8601) is for them. */
export function isAway(
  { away, timeZone }: Pick<Person, 'away' | 'timeZone'>,
  at: string,
  workspaceZone = 'UTC',
): boolean {
  if (!away.length) return false;
  const { day } = localMoment(at, timeZone ?? workspaceZone);
  return away.some(({ from, to }) => from <= day && day <= to);
}

/** Whether somebody works at a moment (ISO 8601): active, not away, within their hours; without hours, at any time. */
export function atWork({ active, away, hours, timeZone }: Person, at: string, workspaceZone = 'UTC'): boolean {
  const { day, weekday, time } = localMoment(at, timeZone ?? workspaceZone);
  if (!active || away.some(({ from, to }) => from <= day && day <= to)) return false;
  if (!Object.keys(hours).length) return true;
  const span = hours[weekday];
  return span !== undefined && span.from <= time && time < span.to;
}

/** There are some 600; names that differ in capitals alone are others. */
const MOST_ZONES = 1_000;

/** Remembered, since making one takes a hundred times as long as using it. */
const clockIn = remembered(
  (timeZone: string) =>
    new Intl.DateTimeFormat('en-GB', {
      timeZone,
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
      weekday: 'short',
      hour: '2-digit',
      minute: '2-digit',
      hourCycle: 'h23',
    }),
  MOST_ZONES,
);

/** A moment (ISO 8601) as the calendar and the clock of a time zone show it. */
export function localMoment(at: string, timeZone: string): { day: string; weekday: Weekday; time: string } {
  const parts = clockIn(timeZone).formatToParts(new Date(at));
  const part = (type: string) => parts.find((one) => one.type === type)!.value;
  return {
    day: `${part('year')}-${part('month')}-${part('day')}`,
    weekday: part('weekday').toLowerCase() as Weekday,
    time: `${part('hour')}:${part('minute')}`,
  };
}

function namedRegion(region: string): string | undefined {
  const name = new Intl.DisplayNames('en', { type: 'region', fallback: 'none' }).of(region);
  return name === undefined || name === region ? undefined : name;
}

function isLanguage(language: string): boolean {
  try {
    const [base] = Intl.getCanonicalLocales(language);
    const code = base?.split('-')[0] ?? '';
    return new Intl.DisplayNames('en', { type: 'language', fallback: 'none' }).of(code) !== undefined;
  } catch {
    return false;
  }
}

function isTime(text: string): boolean {
  return /^([01]\d|2[0-3]):[0-5]\d$|^24:00$/.test(text);
}

function isDay(text: string): boolean {
  const time = Date.parse(`${text}T00:00:00Z`);
  return /^\d{4}-\d{2}-\d{2}$/.test(text) && !Number.isNaN(time);
}
