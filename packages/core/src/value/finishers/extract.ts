import { patterns } from '#libraries';
import type { RE2JS } from 're2js';
import { z } from '../../schema-library';
import { defineFinisher } from './finisher';

/** Patterns are read by RE2, whose time grows with the length of the text alone, whatever the pattern. */
const kept = new Map<string, RE2JS | null>();
const MOST_KEPT = 200;

export const extract = defineFinisher({
  name: 'extract',
  label: 'take out by pattern',
  description:
    'Takes what a pattern (RE2 syntax) finds first: its first group, or all of it where it has none. Blank where it finds nothing.',
  parameters: z.strictObject({
    pattern: z
      .string()
      .min(1)
      .max(500)
      .refine((pattern) => compiled(pattern) !== null, 'is no pattern that can be read in steady time (RE2 syntax)')
      .meta({ title: 'pattern' }),
  }),
  example: { before: 'Order QG-1041 of May', after: '1041', with: { pattern: 'QG-(\\d+)' } },
  finish(text, { pattern }) {
    const matcher = compiled(pattern)!.matcher(text);
    if (!matcher.find()) return { text: '' };
    return { text: (matcher.groupCount() > 0 ? matcher.group(1) : matcher.group()) ?? '' };
  },
});

function compiled(pattern: string): RE2JS | null {
  const known = kept.get(pattern);
  if (known !== undefined) return known;
  if (kept.size >= MOST_KEPT) kept.clear();
  const library = patterns.now;
  let read: RE2JS | null = null;
  try {
    read = library.compile(pattern);
  } catch {
    read = null;
  }
  kept.set(pattern, read);
  return read;
}
