import { z } from '../schema-library';
import { RECORD_KINDS } from '../diff/record';
import {
  CONTENT_TYPES,
  isQuestion,
  ITEM_NAME,
  QUESTION_TYPES,
  type Content,
  type FormCondition,
  type FormDefinition,
  type FormItem,
  type Question,
} from './definition';

/** The most that one form may hold. */
export const FORM_LIMITS = { items: 300, options: 500, languages: 20, snippet: 20_000 } as const;

const name = z.string().regex(ITEM_NAME, 'is lower case letters, digits and _ after a letter');
const web = z
  .string()
  .max(2_000)
  .regex(/^https?:\/\/\S+$/i, 'is an address that begins with https://');
/** Somewhere on the web, or a picture that was uploaded here. */
const picture = z
  .string()
  .max(2_000)
  .regex(
    /^(https?:\/\/\S+|\/f\/pictures\/[0-9a-f-]{36})$/i,
    'is an address that begins with https://, or a picture that was uploaded',
  );
const origin = z
  .string()
  .max(300)
  .regex(/^https?:\/\/[a-z0-9.-]+(:\d{1,5})?$/i, 'is an origin such as https://www.example.com');

const condition: z.ZodType<FormCondition> = z.lazy(() =>
  z.union([
    z.strictObject({ all: z.array(condition).max(50) }),
    z.strictObject({ any: z.array(condition).max(50) }),
    z.strictObject({ not: condition }),
    z.strictObject({
      of: z.strictObject({ question: name }),
      test: z.string().min(1).max(60),
      value: z.unknown().optional(),
      caseSensitive: z.boolean().optional(),
    }),
  ]),
);

const limit = z.number().int().positive().max(100_000);
const bound = z.union([z.number(), z.string().max(40)]);

const question: z.ZodType<Question> = z
  .strictObject({
    name,
    type: z.enum(QUESTION_TYPES),
    label: z.string().max(1_000),
    required: z.boolean().optional(),
    help: z.string().max(500).optional(),
    placeholder: z.string().max(200).optional(),
    options: z
      .array(z.strictObject({ value: z.string().min(1).max(200), label: z.string().min(1).max(200) }))
      .max(FORM_LIMITS.options)
      .optional(),
    shownAs: z.enum(['list', 'radios', 'cards']).optional(),
    value: z.string().max(1_000).optional(),
    from: z
      .string()
      .regex(/^[A-Za-z0-9_.-]{1,60}$/, 'is the name of a parameter')
      .optional(),
    version: z.string().max(60).optional(),
    country: z
      .string()
      .regex(/^[A-Z]{2}$/, 'is a country such as GB')
      .optional(),
    asksCountry: z.boolean().optional(),
    currency: z
      .string()
      .regex(/^[A-Z]{3}$/, 'is a currency such as GBP')
      .optional(),
    checks: z
      .strictObject({
        shortest: limit.optional(),
        longest: limit.optional(),
        least: bound.optional(),
        most: bound.optional(),
        pattern: z.string().min(1).max(100).optional(),
        workEmail: z.boolean().optional(),
        noThrowAway: z.boolean().optional(),
        fileTypes: z
          .array(z.string().regex(/^[a-z0-9]{1,10}$/, 'is an ending such as pdf'))
          .max(30)
          .optional(),
        largest: z.number().int().positive().max(26_214_400).optional(),
      })
      .optional(),
    shownWhen: condition.optional(),
    feeds: z.strictObject({ record: z.enum(RECORD_KINDS), field: z.string().min(1).max(60) }).optional(),
  })
  .refine(
    ({ type, options = [], feeds }) => (type !== 'one-of' && type !== 'several-of') || options.length > 0 || feeds,
    'A choice needs options',
  )
  .refine(
    ({ options = [] }) => new Set(options.map(({ value }) => value)).size === options.length,
    'Two options have the same value',
  );

const content: z.ZodType<Content> = z.strictObject({
  name,
  type: z.enum(CONTENT_TYPES),
  text: z.string().max(FORM_LIMITS.snippet).optional(),
  parts: z
    .array(z.strictObject({ address: picture, text: z.string().max(300) }))
    .max(40)
    .optional(),
  shownWhen: condition.optional(),
});

/** The items of a form, each checked as what it says it is, so that a problem names its own property. */
const item = z.unknown().transform((given, context): FormItem => {
  const type = (given as { type?: unknown } | null)?.type;
  const shape: z.ZodType<FormItem> = isQuestion({ type } as FormItem) ? question : content;
  const read = shape.safeParse(given);
  if (read.success) return read.data;
  for (const { path, message } of read.error.issues) context.addIssue({ code: 'custom', path: [...path], message });
  return z.NEVER;
});

const text = z.string().max(2_000);
const language = z.string().regex(/^[a-z]{2,3}(-[A-Za-z0-9]{2,8}){0,3}$/, 'is a language such as en-GB (BCP 47)');

/** The shape of a form definition. */
export const formShape: z.ZodType<FormDefinition> = z.strictObject({
  format: z.literal('haycart.form/1'),
  title: z.string().min(1).max(200),
  intro: text.optional(),
  items: z
    .array(item)
    .min(1)
    .max(FORM_LIMITS.items)
    .refine((items) => new Set(items.map((one) => one.name)).size === items.length, 'Two items have the same name'),
  button: z.string().min(1).max(60),
  after: z.discriminatedUnion('do', [
    z.strictObject({ do: z.literal('thank'), title: z.string().min(1).max(200), text }),
    z.strictObject({ do: z.literal('redirect'), to: web }),
    z.strictObject({ do: z.literal('show-again'), title: z.string().min(1).max(200) }),
  ]),
  language,
  translations: z
    .record(language, z.record(z.string().max(300), text))
    .refine((languages) => Object.keys(languages).length <= FORM_LIMITS.languages, 'There are too many languages')
    .optional(),
  theme: z.string().max(60).optional(),
  page: z
    .strictObject({
      description: z.string().max(500).optional(),
      canonical: web.optional(),
      image: web.optional(),
      icon: picture.optional(),
    })
    .optional(),
  snippets: z
    .strictObject({
      head: z.string().max(FORM_LIMITS.snippet).optional(),
      body: z.string().max(FORM_LIMITS.snippet).optional(),
    })
    .optional(),
  embedOn: z.array(origin).max(50).optional(),
  mayLeadTo: z.array(origin).max(50).optional(),
}) as z.ZodType<FormDefinition>;
