import type { AnswerPromise, ColourMark, Person } from '@haycart/core';

export interface SessionShape {
  person: { id: string; key: string; name: string; email: string };
  workspace: Omit<WorkspaceShape, 'blockedWords' | 'blockedDomains'>;
  demo: boolean;
}

export interface WorkspaceShape {
  id: string;
  key: string;
  name: string;
  defaultCountry: string;
  defaultCurrency: string;
  /** Whether enquiries become deals at once, or leads that somebody qualifies first. */
  leadHandling: 'deals' | 'leads';
  /** What a deal is called. */
  dealWord: 'deal' | 'opportunity';
  /** A submission that holds one of these is set aside. */
  blockedWords: string[];
  blockedDomains: string[];
}

/** Somebody who works in the workspace. */
export interface PersonShape extends Person {
  id: string;
  email: string;
  /** Keys of their teams. */
  teams: string[];
}

export interface TeamShape {
  key: string;
  name: string;
  /** Keys of its people. */
  people: string[];
  /** How soon they answer; null: nothing is promised. */
  promise: AnswerPromise | null;
}

/** A tag or a list. */
export interface LabelShape {
  key: string;
  name: string;
  colour: ColourMark | null;
  retired?: boolean;
}

/** A label with how many records carry it. */
export interface LabelUse extends LabelShape {
  records: number;
}

/** When a contact came on a list, and left it. */
export interface MembershipLine {
  contact: string;
  name: string;
  joinedAt: string;
  leftAt: string | null;
}

/** What the sign-in page may know before anybody has signed in. */
export interface SignInOptions {
  /** No workspace exists yet: the first one is made with the set-up code. */
  firstStart: boolean;
  demoPeople: { workspace: string; name: string; email: string; about: string }[];
}
