import { templates } from '#libraries';
import type { Liquid, Template } from 'liquidjs';

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
/** The longest template, in characters. */
const MOST_PARSED = 100_000;
const MOST_KEPT = 200;

const made: { text?: Liquid; html?: Liquid } = {};

/** The one engine of Liquid templates; what `html` ones put out is escaped. @throws LibraryMissing while it is not loaded */
export function liquid(as: 'text' | 'html' = 'text'): Liquid {
  const known = made[as];
  if (known) return known;
  const engine = new templates.now({
    strictFilters: true,
    ownPropertyOnly: true,
    memoryLimit: MOST_MEMORY,
    parseLimit: MOST_PARSED,
    ...(as === 'html' ? { outputEscape: 'escape' as const } : {}),
  });
  for (const tag of LEFT_OUT_TAGS) delete engine.tags[tag];
  for (const filter of LEFT_OUT_FILTERS) delete engine.filters[filter];
  return (made[as] = engine);
}

const kept = new Map<string, Template[] | null>();

/** A template that can be worked out; `null` for what is none, or uses a tag or filter that cannot be used here. */
export function parsedTemplate(text: string, as: 'text' | 'html' = 'text'): Template[] | null {
  const key = `${as} ${text}`;
  const known = kept.get(key);
  if (known !== undefined) return known;
  if (kept.size >= MOST_KEPT) kept.clear();
  let read: Template[] | null = null;
  const engine = liquid(as);
  try {
    read = engine.parse(text);
  } catch {
    read = null;
  }
  kept.set(key, read);
  return read;
}
