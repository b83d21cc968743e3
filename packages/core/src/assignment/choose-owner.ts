import type { CountedWork } from './counters';

/** A person whom a route names. */
export interface PersonOwner {
  person: string;
  /** Who takes it while they are away. */
  standIn?: string | undefined;
}

/** Somebody of a team, who take turns. */
export interface TeamOwner {
  team: string;
  /** Whoever looks after one of these already comes first, in this order, of the team or not. */
  keep?: ('contact' | 'company')[] | undefined;
  /** Only whoever is at work; while nobody is, whoever begins first. */
  atWork?: true | undefined;
  /** Whoever has the fewest open leads and deals (`load`) or tasks, or the least in open deals (`worth`), comes next; in turn when not said. */
  by?: CountedWork | undefined;
  /** Nobody gets more who looks after as many open leads and deals as are enough for them. */
  capacity?: true | undefined;
  /** Nobody gets more on a day of theirs than is enough for them. */
  perDay?: true | undefined;
  /** Nobody gets the next after their own while others can take it. */
  notTwice?: true | undefined;
  /** Only who speaks it, BCP 47. */
  speaks?: string | undefined;
  /** Only who knows all of it, as it stands with people. */
  skills?: string[] | undefined;
  /** How many shares of what comes each has; one where nothing is said, and none for 0. */
  shares?: Readonly<Record<string, number>> | undefined;
  /** Who takes it when nobody of it can. */
  otherwise?: string | undefined;
}

/** Somebody whom a route names. */
export type NamedOwner = PersonOwner | TeamOwner;

/** Whom an output of a decision table names. */
export interface DecidedOwner {
  decision: string;
  output: string;
}

/** Who looks after what a route writes. A record that has an owner keeps it. */
export type OwnerRule =
  | NamedOwner
  | DecidedOwner
  /** The colleague who entered it, and somebody else for what nobody here entered. */
  | { enteredBy: true; otherwise?: NamedOwner | DecidedOwner | undefined };

/** The same once tables have said whom they name; none where they name nobody. */
export type SettledOwner = NamedOwner | { enteredBy: true; otherwise?: NamedOwner | undefined };

/** The person or team that an owner rule names itself, if it names any. */
export function namedOwner(rule: OwnerRule): NamedOwner | null {
  const named = 'enteredBy' in rule ? rule.otherwise : rule;
  return named && !('decision' in named) ? named : null;
}

/** The output of a table that says whom an owner rule means, if one does. */
export function decidedOwner(rule: OwnerRule): DecidedOwner | null {
  const named = 'enteredBy' in rule ? rule.otherwise : rule;
  return named && 'decision' in named ? named : null;
}

/** The rule with whom its table names in the place of the table; `null` where that is nobody, and nothing else is said. */
export function settledOwner(
  rule: OwnerRule,
  ownerOf: (decided: DecidedOwner) => NamedOwner | null,
): SettledOwner | null {
  const decided = decidedOwner(rule);
  if (!decided) return rule as SettledOwner;
  const named = ownerOf(decided);
  if ('enteredBy' in rule) return { enteredBy: true, ...(named ? { otherwise: named } : {}) };
  return named;
}
