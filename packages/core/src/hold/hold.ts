import type { z } from '../schema-library';
import type { OwnerRule } from '../assignment/choose-owner';
import type { ProblemCode } from '../codes';
import type { Hold, RouteDefinition } from '../definition/route-definition';
import type { Destination } from '../destination/destination';
import type { AdoptName, EffectRecord, EffectSurroundings, PlannedEffect, Way } from '../effect/effect';
import type { RenderedMail } from '../mail/mail-template';
import type { Submission } from '../payload/submission';

/** What somebody said who was asked before anything is written. */
export interface GivenAnswer {
  /** The kind of hold that it answers: a route whose holds changed since asks anew. */
  for: string;
  approved: boolean;
  /** Who said so; blank where nobody answered in time. */
  by: string;
  /** Why, in their words; blank where they gave no reason. */
  note: string;
}

/** A mail by which somebody is asked, with a link of their own to answer by. */
export interface PlannedAsk {
  for: string;
  /** The place of the hold in the route. */
  hold: number;
  /** An e-mail address. */
  to: string;
  /** The key of the person where it is a colleague. */
  person?: string;
  /** For how many days the link can be answered by. */
  days: number;
  /** Absent in the plan that is kept of a run, since the outbox holds it. */
  mail?: RenderedMail;
  /** Where the mail goes only if nobody has answered so many days later. */
  inDays?: number;
  /** What they are written if nobody has answered so many days later; absent in the plan that is kept of a run. */
  reminder?: { inDays: number; mail: RenderedMail };
}

/** Why the run waits, or ends; and who is asked by mail. */
export interface HoldStep {
  code: 'approval' | 'denied' | 'confirmation' | 'not-confirmed' | 'not-asked';
  /** A sentence. */
  text: string;
  asks?: PlannedAsk[];
  /** What is done since the run ends. */
  effects?: PlannedEffect[];
}

/** What a hold is planned upon, once all else is. */
export interface HoldContext {
  index: number;
  records: readonly EffectRecord[];
  route: RouteDefinition;
  submission: Submission;
  destination: Destination;
  /** What was said already. */
  given: GivenAnswer | undefined;
  /** What the run would do, in a few words each. */
  would(): string[];
  /** The address by which one of those who are asked answers. */
  link(ask: number): string;
}

/** One kind of hold. A registry entry: add a file and a line in `registry.ts`. */
export interface HoldRule<Settings extends Hold = Hold> {
  for: Settings['for'];
  /** Begins a sentence: `Approval`. */
  label: string;
  shape: z.ZodType<Settings>;
  /** An example that the tests run. */
  example: { settings: Settings; words: string };
  /** What is wrong with it beyond its condition; the places are ways inside the settings. */
  check(settings: Settings, around: EffectSurroundings): { code: ProblemCode; text: string; way: Way }[];
  /** Who does what first, as a clause: `Hanne Lie says yes first`. */
  describe(settings: Settings, around: { destination: Destination }): string;
  /** What is told of an answer that let the run go on, without a full stop: `Hanne Lie said yes`. */
  passed(given: GivenAnswer): string;
  /** `null` where nobody is asked any more. */
  plan(settings: Settings, context: HoldContext): HoldStep | null;
  /** The settings in this workspace’s names. */
  adopt?(settings: Settings, adopt: AdoptName): Settings;
  /** The settings with everybody changed who is asked: what checks and renames people goes through them by this. */
  withOwners?(settings: Settings, change: (rule: OwnerRule, way: Way) => OwnerRule): Settings;
}

/** Keeps the type of the settings while an entry is written down. */
export function defineHold<Settings extends Hold>(rule: HoldRule<Settings>): HoldRule {
  return rule as unknown as HoldRule;
}
