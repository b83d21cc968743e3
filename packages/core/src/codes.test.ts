import { readFileSync, writeFileSync } from 'node:fs';
import { env } from 'node:process';
import { fileURLToPath } from 'node:url';
import { expect, test } from '@jest/globals';
import { HOLD_KINDS, holdKindOf, PROBLEM_CODES, REASON_CODES, type ReasonCode } from './codes';
import { codesPage } from './testing/codes-page';

const PAGE = fileURLToPath(new URL('../../../docs/codes.md', import.meta.url));
const reasons = Object.entries(REASON_CODES);

// UPDATE_DOCS=1 npx jest codes.test writes the page anew.
test('the page of codes says what the table says', () => {
  if (env.UPDATE_DOCS) writeFileSync(PAGE, codesPage());
  expect(readFileSync(PAGE, 'utf8')).toBe(codesPage());
});

test('each code means one thing, in a sentence', () => {
  const meanings = [...Object.values(PROBLEM_CODES), ...reasons.map(([, { means }]) => means)];
  expect(meanings.filter((means) => !/^\p{Lu}.*\.$/u.test(means))).toEqual([]);
  expect(Object.keys(PROBLEM_CODES).filter((code) => !/^[a-z]+(-[a-z0-9]+)*$/.test(code))).toEqual([]);
});

test('whatever is held says what would release it, and nothing else does', () => {
  for (const [code, { outcome }] of reasons)
    expect([code, holdKindOf(code as ReasonCode) !== null]).toEqual([code, outcome === 'hold']);
  expect(new Set(reasons.flatMap(([code]) => holdKindOf(code as ReasonCode) ?? []))).toEqual(
    new Set(Object.keys(HOLD_KINDS)),
  );
});
