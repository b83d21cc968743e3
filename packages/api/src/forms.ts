import type {
  FormDefinition,
  FormFigures,
  FormRouteWish,
  Problem,
  Theme,
  VersionComparison,
  FormStep,
} from '@haycart/core';
import type { IntakeShape, TrialShape } from './intakes';
import type { RunOutcome, SubmissionState } from './submissions';

/** A form as its editor needs it. */
export interface FormShape {
  intake: IntakeShape;
  draft: FormDefinition;
  /** Counts the changes of the draft; a change must name the one it was made on. */
  revision: number;
  problems: Problem[];
  /** What publishing would change, in sentences. */
  changes: string[];
  versions: FormVersionShape[];
  /** For the copy of a form that has no route yet: where and how that of the copied form brings what is sent. */
  wish: FormRouteWish | null;
}

/** A picture that was uploaded for forms. */
export interface PictureShape {
  /** Where it is shown, such as `/f/pictures/…`. */
  address: string;
}

/** What happened at a form, without knowing at whom. */
export interface FormFiguresShape {
  whole: FormFigures;
  byVersion: { name: string; figures: FormFigures }[];
  byPage: { name: string; figures: FormFigures }[];
  bySource: { name: string; figures: FormFigures }[];
  byDevice: { name: string; figures: FormFigures }[];
  /** How many left at each question, by its name. */
  stops: Record<string, number>;
  /** From looking at it to a won deal. */
  steps: FormStep[];
  trial: TrialFigures | null;
}

/** How two versions that share the visitors fare, since they do. */
export interface TrialFigures extends TrialShape {
  published: { version: number; figures: FormFigures };
  earlier: { version: number; figures: FormFigures };
  /** The published one against the earlier one; null while either was seen too seldom. */
  comparison: VersionComparison | null;
}

export interface FormVersionShape {
  version: number;
  publishedAt: string;
  publishedBy: string;
  note: string | null;
}

/** A way for forms to look. */
export interface ThemeShape {
  key: string;
  name: string;
  theme: Theme;
  /** The forms that wear it. */
  forms: { key: string; name: string }[];
}

/** What visitors did at a form in the last 30 days. */
export interface FormMonth {
  key: string;
  views: number;
  starts: number;
  sends: number;
  /** The pages that it was seen on. */
  pages: string[];
}

/** A person's own way into a form, which needs no signing in. */
export interface EntryLinkShape {
  secret: string;
  /** Where it leads, such as `/entry/…`. */
  address: string;
}

/** A form as colleagues enter into it, one enquiry after the other. */
export interface EntryShape {
  form: { key: string; name: string; title: string; address: string; state: IntakeShape['state'] };
  /** In whose name. */
  person: { key: string; name: string };
  /** What they entered last, newest first, and what became of it. */
  latest: EnteredShape[];
}

export interface EnteredShape {
  id: string;
  receivedAt: string;
  /** Who it is about. */
  who: string;
  state: SubmissionState;
  /** The runs through the routes that take it. */
  runs: { outcome: RunOutcome; summary: string }[];
}

/** A domain of the company's own under which its forms can be reached. */
export interface FormDomainShape {
  host: string;
  /** The TXT record that shows that it is theirs. */
  record: { name: string; text: string };
  /** When it was shown; until then the domain leads nowhere. */
  provenAt: string | null;
  checkedAt: string | null;
  /** What was wrong at the last check. */
  problem: string | null;
}
