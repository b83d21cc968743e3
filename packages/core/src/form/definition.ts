import type { ConditionOn } from '../condition/condition';
import type { RecordKind } from '../diff/record';

/**
 * What a question asks for. Where a field of a record has such a type, the words are the same; a file, an address, a
 * consent and what is not shown are a form's own.
 */
export const QUESTION_TYPES = [
  'text',
  'long-text',
  'email',
  'phone',
  'web',
  'whole-number',
  'decimal',
  'money',
  'date',
  'yes-no',
  'one-of',
  'several-of',
  'file',
  'address',
  'consent',
  'hidden',
] as const;
export type QuestionTypeName = (typeof QUESTION_TYPES)[number];

/** What stands between questions. A `step` begins a new page of the form. */
export const CONTENT_TYPES = [
  'step',
  'heading',
  'text-block',
  'image',
  'video',
  'gallery',
  'logos',
  'social',
  'divider',
  'html',
] as const;
export type ContentTypeName = (typeof CONTENT_TYPES)[number];

/** What a condition inside a form tests: the answer to another question, by its name. */
export interface QuestionPart {
  question: string;
}
export type FormCondition = ConditionOn<QuestionPart>;

/** What an answer must meet besides its type. All of them hold on the server too. */
export interface AnswerChecks {
  /** Characters. */
  shortest?: number | undefined;
  longest?: number | undefined;
  /** For numbers as they are, for money in whole units of its currency, for dates as `2026-03-14`. */
  least?: number | string | undefined;
  most?: number | string | undefined;
  /** Shape of a text: `A` a letter, `9` a digit, `X` either, anything else itself; `AA-9999` takes `QF-0412`. */
  pattern?: string | undefined;
  /** For e-mail: no address of a free mail service. */
  workEmail?: boolean | undefined;
  /** For e-mail: no address of a service that throws mail away. */
  noThrowAway?: boolean | undefined;
  /** For files: endings without the dot, such as `pdf`. */
  fileTypes?: string[] | undefined;
  /** For files: the most bytes. */
  largest?: number | undefined;
}

/** What an item may be called: the key under which an answer arrives. */
export const ITEM_NAME = /^[a-z][a-z0-9_]{0,59}$/;

/** One question. `name` is the key under which its answer arrives. */
export interface Question {
  name: string;
  type: QuestionTypeName;
  label: string;
  required?: boolean | undefined;
  help?: string | undefined;
  placeholder?: string | undefined;
  /** For `one-of` and `several-of`. */
  options?: AnswerOption[] | undefined;
  /** How `one-of` is shown; as a list to open when not said. */
  shownAs?: 'list' | 'radios' | 'cards' | undefined;
  /** What the answer is before anybody changed it; for `hidden`, the fixed value or what stands in for a missing one. */
  value?: string | undefined;
  /** For `hidden`: the name of the parameter in the page's address that it is taken from. */
  from?: string | undefined;
  /** For `consent`: names the version of the exact words, which stand in `label`. */
  version?: string | undefined;
  /** For `phone` and `address`: ISO 3166-1, what a number or place without a country is read as. */
  country?: string | undefined;
  /** For `phone`: the country is asked for beside the number, beginning with `country`. */
  asksCountry?: boolean | undefined;
  /** For `money`: ISO 4217. */
  currency?: string | undefined;
  checks?: AnswerChecks | undefined;
  /** Asked only while this is met; a question that is not asked has no answer, whatever was typed before. */
  shownWhen?: FormCondition | undefined;
  /** The field of a record that it asks for: its label, type and options follow that field. */
  feeds?: { record: RecordKind; field: string } | undefined;
}

export interface AnswerOption {
  value: string;
  label: string;
}

/** A picture or a link among content. */
export interface ContentPart {
  /** An `https` address, or that of a picture that was uploaded: `/f/pictures/` and its id. */
  address: string;
  /** What it shows, for those who do not see it; the words of a link. */
  text: string;
}

/** Something between questions. */
export interface Content {
  name: string;
  type: ContentTypeName;
  /** The words of a heading, a text block or a step; the code of free HTML. */
  text?: string | undefined;
  /** For images, videos, galleries, logos and social links. */
  parts?: ContentPart[] | undefined;
  shownWhen?: FormCondition | undefined;
}

export type FormItem = Question | Content;

/** What is said or done after sending. `{name}` in a text is the answer to the question of that name. */
export type AfterSending =
  { do: 'thank'; title: string; text: string } | { do: 'redirect'; to: string } | { do: 'show-again'; title: string };

/** A form as data: an open format. */
export interface FormDefinition {
  format: 'haycart.form/1';
  /** What the visitor reads at the top. */
  title: string;
  intro?: string | undefined;
  /** Questions, content and the beginnings of steps, in their order. */
  items: FormItem[];
  button: string;
  after: AfterSending;
  /** BCP 47 language that the texts are written in. */
  language: string;
  /** The same texts in other languages: by language, then by the text's path, such as `items/bays/label`. */
  translations?: Record<string, Record<string, string>> | undefined;
  /** The key of the theme that it wears; the plain one when not said. */
  theme?: string | undefined;
  /** What the page says of itself to search engines and where it is shared. */
  page?: { description?: string; canonical?: string; image?: string; icon?: string } | undefined;
  /** Free code for the head and the end of the body. */
  snippets?: { head?: string; body?: string } | undefined;
  /** Origins whose pages may embed it, such as `https://www.example.com`; none said: any. */
  embedOn?: string[] | undefined;
  /** Sites that sending may lead on to, besides its own. */
  mayLeadTo?: string[] | undefined;
}

export function isQuestion(item: FormItem): item is Question {
  return (QUESTION_TYPES as readonly string[]).includes(item.type);
}

/** Whether an answer is typed in parts, which are sent as `name[]`. */
export function arrivesInParts({ type, asksCountry }: Question): boolean {
  return type === 'address' || (type === 'phone' && asksCountry === true);
}

export function questionsOf(form: Pick<FormDefinition, 'items'>): Question[] {
  return form.items.filter(isQuestion);
}

/** A form's items page by page, each with the step that begins it; before the first step there is a page without one. */
export function stepsOf(form: Pick<FormDefinition, 'items'>): { step: Content | null; items: FormItem[] }[] {
  const steps: { step: Content | null; items: FormItem[] }[] = [{ step: null, items: [] }];
  for (const item of form.items) {
    if (item.type === 'step') steps.push({ step: item as Content, items: [] });
    else steps[steps.length - 1]!.items.push(item);
  }
  return steps.length > 1 && !steps[0]!.items.length ? steps.slice(1) : steps;
}
