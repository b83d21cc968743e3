import type { DecidedOwner, OwnerRule } from '../assignment/choose-owner';
import type { ConditionOn } from '../condition/condition';
import type { DecisionTable } from '../decision/decision-table';
import type { AGAIN, WHEN_MATCHED } from '../decision/known-words';
import type { RecordKind } from '../diff/record';
import type { Part, Value } from '../value/value';

/** The rules that turn submissions into records: an open format, described by `ROUTE_SCHEMA`. */
export interface RouteDefinition {
  format: 'haycart.route/1';
  name: string;
  /** Keys of the intakes that the route takes from. */
  from: string[];
  /** Otherwise the run ends skipped. */
  onlyWhen?: Condition;
  /** Tables whose outputs can be used wherever a value is. */
  decisions?: DecisionTable[];
  /** In order; a later write may link to an earlier one. */
  writes: Write[];
  followUps?: FollowUp[];
  holds?: Hold[];
  sendOn?: SendOn[];
}

export interface Write {
  /** Its name inside the route. */
  as: string;
  record: RecordKind;
  when?: Condition;
  /** Tried in order; none, or none fits: `whenNone`. */
  match?: MatchRule[];
  whenMatched?: WhenMatched;
  whenSeveral?: WhenSeveral;
  whenNone?: 'create' | 'skip' | 'ask';
  fills: Fill[];
  /** Names of earlier writes. */
  links?: string[];
  place?: Place;
  owner?: OwnerRule;
  /** Outputs of tables that say it instead, where they say anything: what happens to a known record, and by a second enquiry. */
  decided?: { whenMatched?: DecidedOwner; again?: DecidedOwner };
}

/** Where a deal stands, and what a second enquiry does to a deal that the contact has in that pipeline. */
export interface Place {
  pipeline: Value;
  stage: Value;
  /**
   * `update`: the open deal is updated and moves forward. `new`: always another deal. `new-if-closed`: an open deal is
   * left as it is. `leave`: any deal, open or closed, is left as it is. Where there is none to keep, a deal is created.
   */
  again: (typeof AGAIN)[number];
  /** Only a deal begun at most so many days before counts as one to keep. */
  within?: number;
  /** A field, such as the subject, in which the deal to keep must hold what came in. */
  sameField?: string;
  /** Whether a second enquiry may move the deal back to an earlier stage. */
  backwards?: boolean;
}

export interface Fill {
  field: string;
  value: Value;
  /** What happens to a value that is already there; `always` when not said. `unless-typed` keeps what a person typed. */
  overwrite?: 'always' | 'unless-typed' | 'if-blank' | 'never';
  /** What happens when there is nothing to fill in; `leave` when not said. */
  ifEmpty?: 'leave' | 'clear' | 'fail';
}

export const WHEN_SEVERAL = ['ask', 'oldest', 'latest', 'most-complete', 'skip'] as const;
export const KEY_RULES = ['email', 'phone', 'domain', 'external-id', 'name'] as const;
/** What speaks against a record although its key is the same. */
export const SAFEGUARDS = ['other-surname', 'other-name', 'other-company'] as const;

/** `leave`: the record stays as it is, and is linked. `skip`: nothing is written of it. */
export type WhenMatched = (typeof WHEN_MATCHED)[number];
export type WhenSeveral = (typeof WHEN_SEVERAL)[number];
export type Safeguard = (typeof SAFEGUARDS)[number];

/** What a rule does, where that differs from what the write says. */
export interface MatchRuleThen {
  whenMatched?: WhenMatched;
  whenSeveral?: WhenSeveral;
  /** `next`, when not said: the rules after it are tried. */
  whenNone?: 'next' | 'create' | 'skip' | 'ask';
}

export type MatchRule = MatchRuleThen &
  (
    | { by: (typeof KEY_RULES)[number]; askIf?: Safeguard[] }
    /** Probabilities: from `accept` on it is the same, from `ask` on a person decides. */
    | { by: 'likeness'; accept: number; ask: number }
  );

export type Condition = ConditionOn<Part>;

/**
 * What is done once records are written, by the kind that `do` names; see `effect/registry.ts` for the settings of each.
 * `on` names the write whose record it is about.
 */
export interface FollowUp {
  do: string;
  on?: string | undefined;
  /** Otherwise it is not done. */
  when?: Condition | undefined;
  [setting: string]: unknown;
}
/** Why a run waits before anything is written: see `hold/registry.ts`. */
export type Hold = { for: string; when?: Condition | undefined } & Record<string, unknown>;
/** What this holds is settled by the part that builds it; until then the checker refuses it by name. */
export type SendOn = { to: string } & Record<string, unknown>;
