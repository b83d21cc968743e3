import { GROWING_FOR } from './quillfern/destination';
import { personKey, TEAMS } from './quillfern/teams';
import type { JsonObject, Origin, Visit } from '@haycart/core';
import {
  CAMPAIGNS,
  DUTCH_LAST_NAMES,
  FIRST_NAMES,
  LAST_NAMES,
  MESSAGES,
  ORGANISATIONS,
  PAGES,
  REFERRERS,
  type Organisation,
} from './material';
import type { Random } from './random';

/** One made-up arrival, before it is posted. */
export interface MadeUp {
  intake: 'survey' | 'pricelist' | 'dealers' | 'calls' | 'cancel' | 'grant';
  at: Date;
  payload: JsonObject;
  visit: Visit;
  origin?: Origin;
}

interface Visitor {
  first: string;
  last: string;
  email: string;
  phone: string;
  organisation: Organisation | null;
}

const DAY = 86_400_000;
/** How many came in the last 24 hours, whatever day and hour it is. */
const LAST_DAY = 23;
const GROWING = GROWING_FOR.map(({ key }) => key);
const SITE = 'https://quillfern.example';

/** A year of arrivals up to now, oldest first: about 3,000, with the mess of real life. */
export function madeUpYear(random: Random, now: Date): MadeUp[] {
  const known: Visitor[] = [];
  const arrivals: MadeUp[] = [];
  for (let day = 365; day >= 0; day -= 1) {
    // Day 0 is the last 24 hours.
    const start = now.getTime() - day * DAY;
    const count = day === 0 ? LAST_DAY : arrivalsOn(random, new Date(start));
    for (let index = 0; index < count; index += 1) {
      // The last day is on the first screen: its kinds come in turn, spread over the day, whatever the dice say.
      const turn = day === 0 ? (((index * 7) % LAST_DAY) + 0.5) / LAST_DAY : random.next();
      const ago = day === 0 ? ((index + random.next()) / LAST_DAY) * DAY : random.next() * DAY;
      const at = new Date(Math.min(start - ago, now.getTime() - 60_000));
      arrivals.push(madeUp(random, turn, at, visitorFor(random, known, day === 0 && index % 4 === 1), now));
    }
  }
  return arrivals.sort((a, b) => a.at.getTime() - b.at.getTime());
}

function arrivalsOn(random: Random, day: Date): number {
  const weekend = day.getUTCDay() === 0 || day.getUTCDay() === 6;
  const season = 1 + 0.25 * Math.sin(((day.getUTCMonth() - 1) / 12) * 2 * Math.PI);
  return Math.round((weekend ? 4 : 9) * season * (0.6 + random.next() * 0.8));
}

function visitorFor(random: Random, known: Visitor[], newcomer: boolean): Visitor {
  if (!newcomer && known.length > 30 && random.chance(0.42)) return random.pick(known);
  const first = random.pick(FIRST_NAMES);
  const last = random.chance(0.12) ? random.pick(DUTCH_LAST_NAMES) : random.pick(LAST_NAMES);
  const organisation = random.chance(0.62) ? random.pick(ORGANISATIONS) : null;
  const plain = (name: string) =>
    name
      .normalize('NFD')
      .replace(/[^A-Za-z]/g, '')
      .toLowerCase();
  const local = random.chance(0.5)
    ? `${plain(first)}.${plain(last)}`
    : `${plain(first)[0]}${plain(last)}${random.between(1, 99)}`;
  const visitor = {
    first,
    last,
    organisation,
    phone: phoneNumber(random),
    email: `${local}@${organisation?.domain ?? random.pick(['example.com', 'example.org', 'example.net'])}`,
  };
  known.push(visitor);
  return visitor;
}

/** Numbers from ranges that are kept for fiction, as people type them. */
function phoneNumber(random: Random): string {
  const digits = String(random.between(0, 999)).padStart(3, '0');
  return random.pick([
    `07700 900${digits}`,
    `+44 7700 900 ${digits}`,
    `020 7946 0${digits}`,
    `+1 416 555 01${digits.slice(0, 2)}`,
    `+31 6 0000 4${digits}`,
    `07700900${digits}`,
  ]);
}

function madeUp(random: Random, roll: number, at: Date, visitor: Visitor, now: Date): MadeUp {
  const visit = madeUpVisit(random);
  if (roll < 0.32) return { intake: 'survey', at, payload: surveyAnswers(random, visitor), visit };
  if (roll < 0.43)
    return {
      intake: 'dealers',
      at,
      payload: dealerApplication(random, visitor, at, now),
      visit: { userAgent: 'dealer-site/2.4' },
    };
  if (roll < 0.5) return { intake: 'calls', at, payload: callNotes(random, visitor), ...entered(visitor) };
  return { intake: 'pricelist', at, payload: pricelistAnswers(random, visitor), visit };
}

function madeUpVisit(random: Random): Visit {
  const page = `${SITE}${random.pick(PAGES)}`;
  const userAgent = random.pick([
    'Mozilla/5.0 (X11; Linux x86_64) Demo/1',
    'Mozilla/5.0 (iPhone) Demo/1',
    'Mozilla/5.0 (Windows NT 10.0) Demo/1',
  ]);
  const roll = random.next();
  if (roll < 0.45) return { page, userAgent, ...random.pick(CAMPAIGNS) };
  if (roll < 0.7) return { page, userAgent, referrer: random.pick(REFERRERS) };
  return { page, userAgent };
}

function surveyAnswers(random: Random, visitor: Visitor): JsonObject {
  const bays = random.between(1, 14);
  const answers: JsonObject = {
    first_name: untidy(random, visitor.first),
    last_name: untidy(random, visitor.last),
    email: random.chance(0.06) ? ` ${visitor.email.toUpperCase()} ` : visitor.email,
    phone: random.chance(0.75) ? visitor.phone : '',
    organisation: visitor.organisation?.name ?? '',
    growing_for: random.chance(0.02) ? 'Rooftop café' : random.pick(GROWING),
    bays: random.chance(0.05) ? 'a few' : String(bays),
    budget: random.chance(0.65) ? budget(random, bays) : '',
    message: random.chance(0.8) ? random.pick(MESSAGES) : '',
    channel: 'web',
  };
  if (random.chance(0.7)) answers.consent = 'yes';
  return answers;
}

function budget(random: Random, bays: number): string {
  const amount = bays * random.between(6, 11) * 1_000;
  return random.pick([
    `£${amount}`,
    `£ ${amount.toLocaleString('en-GB')}`,
    `€ ${amount.toLocaleString('de-DE')}`,
    `${amount}`,
    `GBP ${amount}`,
  ]);
}

/** Calls are entered by the dealer desk, each of whom has callers of their own. */
function entered({ last }: Visitor): Pick<MadeUp, 'visit' | 'origin'> {
  const desk = TEAMS.find(({ key }) => key === 'dealer-desk')!.people.map(personKey);
  return {
    visit: { formVersion: '1', utm_source: 'partner call' },
    origin: { enteredBy: desk[last.length % desk.length]! },
  };
}

/** What a partner notes after a call. */
function callNotes(random: Random, visitor: Visitor): JsonObject {
  return {
    caller: `${visitor.first} ${visitor.last}`,
    email: random.chance(0.85) ? visitor.email : '',
    phone: visitor.phone,
    organisation: visitor.organisation?.name ?? '',
    bays: random.chance(0.5) ? String(random.between(1, 12)) : '',
    said: random.pick(MESSAGES),
  };
}

function pricelistAnswers(random: Random, visitor: Visitor): JsonObject {
  const spam = random.chance(0.03);
  const answers: JsonObject = {
    first_name: spam ? 'free' : untidy(random, visitor.first),
    last_name: spam ? 'seo offer' : untidy(random, visitor.last),
    email: visitor.email,
    organisation: visitor.organisation?.name ?? '',
  };
  if (random.chance(0.55)) answers.consent = 'yes';
  return answers;
}

/** What the dealer site posts. A day ago it renamed a field without telling anybody. */
function dealerApplication(random: Random, visitor: Visitor, at: Date, now: Date): JsonObject {
  const organisation = visitor.organisation ?? random.pick(ORGANISATIONS);
  const renamed = now.getTime() - at.getTime() <= DAY;
  const name: JsonObject = { first: visitor.first, [renamed ? 'surname' : 'last']: visitor.last };
  return {
    application: { id: `A-${random.between(10_000, 99_999)}`, submitted: at.toISOString() },
    person: {
      name,
      email: visitor.email,
      phones: [visitor.phone],
      role: random.pick(['Owner', 'Buyer', 'Head gardener', '']),
    },
    business: {
      name: organisation.name,
      website: `https://www.${organisation.domain}/`,
      country: random.pick(['NL', 'DE', 'IE', 'GB', 'CA']),
      glass_m2: random.chance(0.7) ? random.between(40, 4_000) : null,
    },
    plans: { units_per_year: random.between(1, 40), message: random.pick(MESSAGES) },
    terms: true,
  };
}

/** The ways in which people type their names. */
function untidy(random: Random, name: string): string {
  const roll = random.next();
  if (roll < 0.06) return name.toUpperCase();
  if (roll < 0.12) return name.toLowerCase();
  if (roll < 0.17) return `  ${name} `;
  return name;
}
