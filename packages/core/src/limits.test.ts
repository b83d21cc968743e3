import { readFileSync, writeFileSync } from 'node:fs';
import { env } from 'node:process';
import { fileURLToPath } from 'node:url';
import { expect, test } from '@jest/globals';
import { LIMITS } from './limits';
import { checkPayload } from './payload/body';
import { limitsPage } from './testing/limits-page';

const PAGE = fileURLToPath(new URL('../../../docs/limits.md', import.meta.url));

// UPDATE_DOCS=1 npx jest limits.test writes the page anew.
test('the page of limits says what the table says', () => {
  if (env.UPDATE_DOCS) writeFileSync(PAGE, limitsPage());
  expect(readFileSync(PAGE, 'utf8')).toBe(limitsPage());
});

test('a payload is refused from one character, field or level beyond its limits on', () => {
  const { payloadKey, payloadValue, payloadFields } = LIMITS;
  const many = (count: number) => Object.fromEntries(Array.from({ length: count }, (_, n) => [`k${n}`, n]));
  const allowed = [
    { ['k'.repeat(payloadKey.most)]: 1 },
    { message: 'x'.repeat(payloadValue.most) },
    many(payloadFields.most),
  ];
  expect(allowed.map(checkPayload)).toEqual([null, null, null]);
  const refused = [
    { deep: [{ ['k'.repeat(payloadKey.most + 1)]: 1 }] },
    { deep: ['x'.repeat(payloadValue.most + 1)] },
    many(payloadFields.most + 1),
  ];
  expect(refused.map((one) => checkPayload(one)?.code)).toEqual(['too-long', 'too-long', 'too-many-fields']);
});
