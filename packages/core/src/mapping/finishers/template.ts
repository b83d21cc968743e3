import { templates } from '#libraries';
import type { Liquid, Template } from 'liquidjs';
import { error } from '../../problem';
import { z } from '../../schema-library';
import { storableText } from '../../text';
import { defineFinisher } from './finisher';

/** What repeats, reads files or counts on between values: a template is for one value and always ends. */
const LEFT_OUT_TAGS = ['for', 'tablerow', 'cycle', 'include', 'render', 'layout', 'block', 'increment', 'decrement'];
/** What depends on the clock or on chance: the same submission always gives the same value. */
const LEFT_OUT_FILTERS = [
  'date',
  'date_to_xmlschema',
  'date_to_rfc822',
  'date_to_string',
  'date_to_long_string',
  'sample',
];
const MOST_MEMORY = 1_000_000;
const MOST_KEPT = 200;

let made: Liquid | undefined;

function liquid(): Liquid {
  if (made) return made;
  made = new templates.now({
    strictFilters: true,
    ownPropertyOnly: true,
    memoryLimit: MOST_MEMORY,
    parseLimit: 10_000,
  });
  for (const tag of LEFT_OUT_TAGS) delete made.tags[tag];
  for (const filter of LEFT_OUT_FILTERS) delete made.filters[filter];
  return made;
}

const kept = new Map<string, Template[] | null>();

export const template = defineFinisher({
  name: 'template',
  label: 'template',
  description:
    'Writes a text by a Liquid template: {{ value }} is what came so far, {{ answers.email }} another answer. It cannot loop, nor read the clock.',
  parameters: z.strictObject({
    text: z
      .string()
      .max(5_000)
      .refine(
        (text) => parsed(text) !== null,
        'is no Liquid template, or uses a tag or filter that cannot be used here',
      )
      .meta({ title: 'template' }),
  }),
  example: {
    before: 'Ada',
    after: 'ADA of Weir',
    with: { text: '{{ value | upcase }}{% if answers.firm %} of {{ answers.firm }}{% endif %}' },
    answers: { firm: 'Weir' },
  },
  finish(text, parameters, { payload }) {
    const engine = liquid();
    try {
      const written = engine.renderSync(parsed(parameters.text)!, { value: text, answers: payload }) as string;
      return { text: storableText(written) };
    } catch {
      return { text: '', problem: error('template-failed', 'The template cannot be worked out with this submission.') };
    }
  },
});

function parsed(text: string): Template[] | null {
  const known = kept.get(text);
  if (known !== undefined) return known;
  if (kept.size >= MOST_KEPT) kept.clear();
  const engine = liquid();
  let read: Template[] | null = null;
  try {
    read = engine.parse(text);
  } catch {
    read = null;
  }
  kept.set(text, read);
  return read;
}
