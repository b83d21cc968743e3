import { readDate } from '../../reading/date-text';
import { oneNumberIn } from '../../reading/number-text';
import { yesOrNo } from '../../reading/yes-no-words';
import { localMoment, WEEKDAYS, WEEKDAY_NAMES } from '../../people/person';
import type { ValueKind } from '../../payload/value-kind';
import type { InputAs } from '../decision-table';
import { regionText } from '../region';
import type { InputKind } from './input-kind';

const text: InputKind = {
  as: 'text',
  label: 'text',
  type: 'text',
  holds: [],
  read: (texts) => (texts.length > 1 ? [...texts] : texts[0]!),
};

const number: InputKind = {
  as: 'number',
  label: 'a number',
  type: 'decimal',
  holds: ['whole-number', 'decimal', 'money'],
  read: ([first]) => oneNumberIn(first!),
};

const date: InputKind = {
  as: 'date',
  label: 'a date',
  type: 'date',
  holds: ['date', 'date-time'],
  read([first], { timeZone }) {
    if (timeZone && isMoment(first!)) return localMoment(first!, timeZone).day;
    const read = readDate(first!, 'day-first');
    return read.ok ? read.date : null;
  },
};

const yesNo: InputKind = {
  as: 'yes-no',
  label: 'yes or no',
  type: 'yes-no',
  holds: ['yes-no'],
  read: ([first]) => yesOrNo(first!),
};

const several: InputKind = {
  as: 'several',
  label: 'several choices',
  type: 'several-of',
  holds: ['list'],
  read: (texts) => [...texts],
};

const region: InputKind = {
  as: 'region',
  label: 'a country with postal code',
  type: 'text',
  holds: ['country'],
  read: ([country], _, postcode) => regionText(country!, postcode),
};

const weekday: InputKind = {
  as: 'weekday',
  label: 'the day of the week',
  type: 'one-of',
  holds: [],
  options: WEEKDAYS.map((key) => ({ key, label: WEEKDAY_NAMES[key] })),
  read: ([moment], { timeZone = 'UTC' }) => (isMoment(moment!) ? localMoment(moment!, timeZone).weekday : null),
};

/** In minutes since midnight. */
const timeOfDay: InputKind = {
  as: 'time-of-day',
  label: 'the time of day',
  type: 'whole-number',
  holds: [],
  read: ([moment], { timeZone = 'UTC' }) => (isMoment(moment!) ? minutesOf(localMoment(moment!, timeZone).time) : null),
};

/** Every way to read an input, in the order in which the chooser offers them. */
export const INPUT_KINDS: readonly InputKind[] = [text, number, date, yesNo, several, region, weekday, timeOfDay];

const byName = new Map(INPUT_KINDS.map((kind) => [kind.as, kind]));

export function inputKind(as: InputAs): InputKind {
  return byName.get(as)!;
}

/** How an answer that looks like this is read when nothing else is said. */
export function inputAsFor(holds: ValueKind): InputAs {
  return INPUT_KINDS.find((kind) => kind.holds.includes(holds))?.as ?? 'text';
}

/** `09:30` as minutes since midnight. */
export function minutesOf(time: string): number {
  return Number(time.slice(0, 2)) * 60 + Number(time.slice(3, 5));
}

function isMoment(text: string): boolean {
  return /^\d{4}-\d\d-\d\dT/.test(text) && !Number.isNaN(Date.parse(text));
}
