import { z } from '../schema-library';

/** One question of a hosted form. `name` is the key under which its answer arrives. */
export interface Question {
  name: string;
  type: 'text' | 'email' | 'phone' | 'choice' | 'long-text' | 'consent' | 'hidden';
  label: string;
  required?: boolean | undefined;
  help?: string | undefined;
  placeholder?: string | undefined;
  /** For `choice`. */
  options?: { value: string; label: string }[] | undefined;
  /** For `hidden`: the fixed value. */
  value?: string | undefined;
  /** For `consent`: the exact words agreed to stand in `label`; this names their version. */
  version?: string | undefined;
  /** The most characters; by default as many as the type allows. */
  longest?: number | undefined;
}

/** A hosted form as data. */
export interface FormDefinition {
  format: 'haycart.form/1';
  title: string;
  intro?: string | undefined;
  questions: Question[];
  button: string;
  thanks: { title: string; text: string };
  /** BCP 47 language of the page. */
  language: string;
}

const name = z.string().regex(/^[a-z][a-z0-9_]{0,59}$/, 'is lower case letters, digits and _ after a letter');

export const formShape: z.ZodType<FormDefinition> = z.strictObject({
  format: z.literal('haycart.form/1'),
  title: z.string().min(1).max(200),
  intro: z.string().max(2_000).optional(),
  questions: z
    .array(
      z
        .strictObject({
          name,
          type: z.enum(['text', 'email', 'phone', 'choice', 'long-text', 'consent', 'hidden']),
          label: z.string().max(1_000),
          required: z.boolean().optional(),
          help: z.string().max(500).optional(),
          placeholder: z.string().max(200).optional(),
          options: z
            .array(z.strictObject({ value: z.string().min(1).max(200), label: z.string().min(1).max(200) }))
            .optional(),
          value: z.string().max(1_000).optional(),
          version: z.string().max(60).optional(),
          longest: z.number().int().positive().max(100_000).optional(),
        })
        .refine(
          (question) => question.type !== 'choice' || (question.options?.length ?? 0) > 0,
          'A choice needs options',
        ),
    )
    .min(1)
    .max(200)
    .refine(
      (questions) => new Set(questions.map((question) => question.name)).size === questions.length,
      'Two questions have the same name',
    ),
  button: z.string().min(1).max(60),
  thanks: z.strictObject({ title: z.string().min(1).max(200), text: z.string().max(2_000) }),
  language: z.string().min(2).max(35),
});
