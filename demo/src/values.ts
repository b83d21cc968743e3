import type { Value } from '@haycart/core';

/** The values that the demo's routes are made of: an answer, a fixed text, and where the visitor came from. */
export const answer = (key: string, ...finishers: string[]): Value => ({
  parts: [{ answer: key }],
  finishers: finishers.map((use) => ({ use })),
});
export const text = (words: string): Value => ({ parts: [{ text: words }] });
export const SOURCE: Value = { parts: [{ visit: 'source' }] };
