import type { FieldValues } from '../diff/record';
import { normalEmail } from '../reading/email';
import { foldWords } from '../reading/fold-text';
import { isNicknameOf } from '../identity/nicknames';
import { COUNTRIES, type Country } from './countries';

/** One generated record of a person, with who it truly is. */
export interface GeneratedRecord {
  id: string;
  person: number;
  /** What was done to it; `original` for the first of a person. */
  made: string[];
  values: FieldValues;
  company: { id: string; values: FieldValues } | null;
}

export interface GeneratedPeople {
  records: GeneratedRecord[];
  /** Pairs of different people who agree in much: relatives at one number, colleagues at one switchboard. */
  relatives: [string, string][];
  colleagues: [string, string][];
}

/** A seeded source of randomness (mulberry32): the same seed gives the same people. */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
}

const words = (text: string) => text.split(' ');

/** How many of a hundred people are of each country, in the order of the countries. */
const SHARES = [58, 13, 13, 6, 5, 2, 2, 1];

const FIRM_HEADS = words(
  'Fennwick Alderbrook Birchmere Castlegate Dunmore Elmhurst Foxglove Glenside Harrowdene Ivybridge Juniper Kingfisher Larkhill Meadowsweet Northgate Oakwell Priory Quarryfield Ridgeway Silverstream Thornbury Underwood Valebrook Westerley Yewtree Amberley Brackenridge Cloverfield Damson Everglade',
);
const FIRM_TAILS = words(
  'Nursery Academy Gardens Growers School Botanics Seeds Glass Horticulture Farm Estate College Orchards Landscapes Herbs',
);
const FORMS = ['Ltd', 'Limited', 'GmbH', 'B.V.', 'LLP', 'plc', 'Inc.', ''];
const JOBS = [
  'Head gardener',
  'Owner',
  'Site manager',
  'Bursar',
  'Head of science',
  'Buyer',
  'Grower',
  'Estates manager',
  'Director',
  'Facilities manager',
];
const KEYBOARD = ['qwertyuiop', 'asdfghjkl', 'zxcvbnm'];
const OCR: [string, string][] = [
  ['rn', 'm'],
  ['l', '1'],
  ['o', '0'],
  ['cl', 'd'],
  ['m', 'rn'],
  ['i', 'l'],
];

/**
 * People with the mess of real life, labelled: typing errors, keyboard neighbours, misread scans, swapped fields,
 * nicknames, changed surnames, moved jobs, missing fields, shared mailboxes, relatives at one number and colleagues at one
 * switchboard, in several languages. The same for the same seed.
 *
 * @param people How many different people, relatives and colleagues beside them.
 */
export function generatePeople(seed: number, people: number): GeneratedPeople {
  const random = seeded(seed);
  const below = (n: number) => Math.floor(random() * n);
  const chance = (share: number) => random() < share;
  const pick = <T>(items: readonly T[]): T => items[below(items.length)]!;
  /** Some names are common and most are rare: the n-th as often as 1/(n + 3). */
  const pickCommon = <T>(items: readonly T[]): T =>
    items[Math.min(items.length - 1, Math.floor((items.length + 3) ** random() * 1.0 - 1 + random()))]!;
  const country = () => {
    let at = below(100);
    return COUNTRIES[SHARES.findIndex((share) => (at -= share) < 0)]!;
  };
  const digits = (count: number) => Array.from({ length: count }, () => below(10)).join('');
  const phoneOf = ({ phone }: Country) => phone + digits(Math.max(4, 12 - phone.length + 1));

  const records: GeneratedRecord[] = [];
  const relatives: [string, string][] = [];
  const colleagues: [string, string][] = [];
  interface Firm {
    id: string;
    values: FieldValues;
    switchboard: string;
    country: Country;
    staff: string[];
    names: Set<string>;
  }
  const firms: Firm[] = [];
  const firm = (of: Country): Firm => {
    const known = firms.filter((one) => one.country === of);
    if (known.length && chance(0.55)) return pick(known);
    const name = `${pick(FIRM_HEADS)} ${pick(FIRM_TAILS)}`;
    const number = firms.length;
    const made: Firm = {
      id: `firm-${number}`,
      values: {
        name: `${name} ${pick(FORMS)}`.trim(),
        domain: `${name.toLowerCase().replace(/ /g, '')}${number}.${of.domain}`,
      },
      switchboard: phoneOf(of),
      country: of,
      staff: [],
      names: new Set(),
    };
    firms.push(made);
    return made;
  };
  interface Person {
    number: number;
    given: string;
    family: string;
    country: Country;
    firm: Firm | null;
    phone: string;
    home: string;
    job: string;
    work: string | null;
    personal: string;
  }
  const ascii = (name: string) => foldWords(name).join('');
  const addresses = new Set<string>();
  /** Nobody else has it: an address belongs to one person. */
  const own = (address: string): string => {
    let free = address;
    for (let n = 2; addresses.has(free); n++) free = address.replace('@', `${n}@`);
    addresses.add(free);
    return free;
  };
  const mailbox = (given: string, family: string, domain: string, style: number) => {
    const [g, f] = [ascii(given) || 'x', ascii(family) || 'x'];
    const local = [`${g}.${f}`, `${g[0]}.${f}`, `${g}${f}`, `${f}.${g}`, `${g}${f[0]}`][style % 5]!;
    return own(`${local}@${domain}`);
  };
  let number = 0;
  const person = (like: Partial<Person> = {}): Person => {
    const of = like.country ?? country();
    const works = like.firm !== undefined ? like.firm : chance(0.8) ? firm(of) : null;
    let given = like.given ?? pickCommon(of.given);
    const family = like.family ?? pickCommon(of.family).replaceAll('_', ' ');
    // Two of one name in one firm would be told apart there by something that is not in any field.
    for (let n = 0; works?.names.has(`${given} ${family}`) && n < 9; n++) given = pick(of.given);
    works?.names.add(`${given} ${family}`);
    const style = below(5);
    return {
      number: number++,
      given,
      family,
      country: of,
      firm: works,
      phone: phoneOf(of),
      home: phoneOf(of),
      job: pick(JOBS),
      work: works ? mailbox(given, family, String(works.values.domain), style) : null,
      personal: mailbox(
        given,
        family,
        pick(['gmail.com', 'outlook.com', 'gmx.de', 'example.net', 'yahoo.com']),
        style + below(3),
      ).replace('@', `${below(90) + 10}@`),
      ...like,
    };
  };
  const valid = (email: string) => {
    const read = normalEmail(email);
    return read.ok ? read.email : null;
  };
  const record = (
    who: Person,
    made: string[],
    change: Partial<Record<string, string | null>> = {},
    of: Firm | null = who.firm,
  ): GeneratedRecord => {
    const values: FieldValues = {};
    const set = (key: string, value: string | null | undefined) => {
      const given = key in change ? change[key] : value;
      if (given) values[key] = given;
    };
    set('first_name', who.given);
    set('last_name', who.family);
    set('email', who.work ?? who.personal);
    set('phone', chance(0.7) ? (who.firm && chance(0.25) ? who.firm.switchboard : who.phone) : null);
    set('country', chance(0.6) ? who.country.code : null);
    set('job_title', chance(0.4) ? who.job : null);
    const mail = typeof values.email === 'string' ? valid(values.email) : null;
    if (mail) values.email = mail;
    else delete values.email;
    if (values.first_name && values.last_name)
      values.full_name = `${String(values.first_name)} ${String(values.last_name)}`;
    const made_: GeneratedRecord = {
      id: `record-${records.length}`,
      person: who.number,
      made,
      values,
      company: of && chance(0.85) ? { id: of.id, values: of.values } : null,
    };
    records.push(made_);
    return made_;
  };
  const typo = (word: string): string => {
    if (word.length < 4) return word;
    const at = 1 + below(word.length - 2);
    switch (below(4)) {
      case 0:
        return word.slice(0, at) + word[at + 1]! + word[at]! + word.slice(at + 2);
      case 1:
        return word.slice(0, at) + word.slice(at + 1);
      case 2:
        return word.slice(0, at) + word[at]! + word.slice(at);
      default: {
        const row = KEYBOARD.find((keys) => keys.includes(word[at]!.toLowerCase()));
        const next = row
          ? row[Math.max(0, Math.min(row.length - 1, row.indexOf(word[at]!.toLowerCase()) + (chance(0.5) ? 1 : -1)))]!
          : word[at]!;
        return word.slice(0, at) + next + word.slice(at + 1);
      }
    }
  };
  const misread = (word: string): string => {
    const able = OCR.filter(([from]) => word.slice(1).includes(from));
    if (!able.length) return word;
    const [from, to] = pick(able);
    return word[0]! + word.slice(1).replace(from, to);
  };
  /** Another record of the same person, as it comes in months later. */
  const again = (who: Person): void => {
    const made: string[] = [];
    const change: Partial<Record<string, string | null>> = {};
    let of = who.firm;
    const roll = random();
    if (roll < 0.16) {
      made.push('typing error');
      if (chance(0.5)) change.last_name = typo(who.family);
      else change.first_name = typo(who.given);
      if (chance(0.4)) change.email = (who.work ?? who.personal).replace(/^[^@]+/, typo);
    } else if (roll < 0.24) {
      made.push('misread scan');
      change.last_name = misread(who.family);
      change.first_name = misread(who.given);
    } else if (roll < 0.42) {
      made.push('nickname');
      change.first_name = who.country.short[who.given] ?? who.given;
    } else if (roll < 0.5) {
      made.push('swapped fields');
      change.first_name = who.family;
      change.last_name = who.given;
    } else if (roll < 0.64) {
      made.push('moved job');
      of = chance(0.7) ? firm(who.country) : null;
      change.email =
        of && chance(0.6) ? mailbox(who.given, who.family, String(of.values.domain), below(5)) : who.personal;
      change.phone = who.phone;
      change.job_title = pick(JOBS);
    } else if (roll < 0.7) {
      made.push('changed surname');
      change.last_name = pickCommon(who.country.family).replaceAll('_', ' ');
      change.phone = who.phone;
    } else if (roll < 0.82) made.push('plain');
    else {
      made.push('private address');
      change.email = who.personal;
    }
    if (!made.includes('moved job') && chance(0.15)) {
      made.push('no phone');
      change.phone = null;
    } else if (chance(0.5)) change.phone = who.phone;
    if (chance(0.12) && change.phone !== null && change.phone) {
      made.push('no e-mail');
      change.email = null;
    }
    if (chance(0.08) && who.given.length > 1) {
      made.push('initial only');
      change.first_name = `${who.given[0]!}.`;
    }
    record(who, made, change, of);
  };

  for (let i = 0; i < people; i++) {
    const who = person();
    const first = record(who, ['original'], chance(0.75) ? { phone: who.phone } : {});
    if (who.firm) {
      if (who.firm.staff.length && chance(0.5)) colleagues.push([pick(who.firm.staff), first.id]);
      who.firm.staff.push(first.id);
    }
    if (chance(0.25)) again(who);
    if (chance(0.06)) again(who);
    if (chance(0.06)) {
      // A relative: the same name and number at home, at times the same mailbox.
      const kin = person({
        country: who.country,
        family: who.family,
        home: who.home,
        firm: chance(0.3) ? who.firm : null,
      });
      if (kin.given !== who.given && !isNicknameOf(foldWords(kin.given)[0] ?? '', foldWords(who.given)[0] ?? '')) {
        const shared = { phone: who.home, ...(chance(0.3) ? { email: `${ascii(who.family)}family@example.net` } : {}) };
        const own = record(who, ['at home'], shared);
        relatives.push([own.id, record(kin, ['original'], shared).id], [first.id, records[records.length - 1]!.id]);
      }
    }
    if (who.firm && chance(0.04)) {
      // A colleague who writes from the office’s mailbox and number.
      const beside = person({ country: who.country, firm: who.firm });
      const office = { phone: who.firm.switchboard, email: `info@${String(who.firm.values.domain)}` };
      const own = record(who, ['at the office'], office);
      colleagues.push([own.id, record(beside, ['original'], office).id]);
    }
  }
  return { records, relatives, colleagues };
}
