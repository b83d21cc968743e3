import type { Sender } from './senders';

/** What a draft is asked for. */
export const FACTS = ['first', 'last', 'email', 'phone', 'company', 'country', 'role', 'message'] as const;
export type Fact = (typeof FACTS)[number];

/** One way in which senders write answers down. */
export interface PayloadStyle {
  name: string;
  /** Whether nothing was tuned on it. */
  heldOut: boolean;
  /** What is sent: JSON, or names and values as forms send them. */
  body: (sender: Sender, index: number) => object;
  /** Which facts it carries; all where it does not say. */
  has?: readonly Fact[];
  /** The questions as a person must see them, where the sender gives them. */
  asks?: Partial<Record<Fact, string>>;
}

export const hex = (seed: number) => (Math.imul(seed + 7, 0x9e3779b1) >>> 0).toString(16).padStart(8, '0');
export const uuid = (seed: number) => `${hex(seed)}-4c1e-4b7a-9d20-${hex(seed + 50)}${hex(seed + 90).slice(0, 4)}`;
export const at = (index: number) => `2027-03-${String(index + 10)}T09:1${index}:30Z`;
export const whole = ({ first, last }: Sender) => `${first} ${last}`;
export const form = (pairs: Record<string, string>) => new URLSearchParams(pairs);

export const ENGLISH: Record<Fact, string> = {
  first: 'First name',
  last: 'Last name',
  email: 'E-mail address',
  phone: 'Phone number',
  company: 'School or company',
  country: 'Country',
  role: 'Your role',
  message: 'How can we help?',
};

export const flat = (questions: Record<Fact, string>) => (sender: Sender) =>
  Object.fromEntries(FACTS.map((fact) => [questions[fact], sender[fact]]));

export const ids = Object.fromEntries(FACTS.map((fact, place) => [fact, uuid(place * 31)])) as Record<Fact, string>;
export const short = Object.fromEntries(FACTS.map((fact, place) => [fact, `f${place + 3}`])) as Record<Fact, string>;
export const byFact = <T>(make: (fact: Fact, place: number) => T) => FACTS.map(make);
