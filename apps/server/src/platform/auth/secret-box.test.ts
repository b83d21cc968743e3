import { randomBytes } from 'node:crypto';
import { expect, test } from '@jest/globals';
import { SecretBox } from './secret-box';

const [old, fresh] = [randomBytes(32), randomBytes(32)];

test('what is sealed opens for the same thing alone, and not once it was changed', () => {
  const box = new SecretBox({ secretKeys: [fresh] });
  const sealed = box.seal('whsec_abc', 'intake 1');
  expect(sealed).not.toContain('abc');
  expect(box.open(sealed, 'intake 1')).toBe('whsec_abc');
  expect(() => box.open(sealed, 'intake 2')).toThrow();
  // All bits of a letter that is not among the last ones count.
  const changed = sealed.at(-6) === 'A' ? 'B' : 'A';
  expect(() => box.open(`${sealed.slice(0, -6)}${changed}${sealed.slice(-5)}`, 'intake 1')).toThrow();
});

test('after a rotation the old key still opens, and the new one seals', () => {
  const before = new SecretBox({ secretKeys: [old] }).seal('s', 'x');
  const after = new SecretBox({ secretKeys: [fresh, old] });
  expect([after.open(before, 'x'), after.isCurrent(before), after.isCurrent(after.seal('s', 'x'))]).toEqual([
    's',
    false,
    true,
  ]);
  expect(() => new SecretBox({ secretKeys: [fresh] }).open(before, 'x')).toThrow('is not among the keys');
});

test('what was kept before there was a key is given back, and without a key nothing is sealed', () => {
  const box = new SecretBox({ secretKeys: [] });
  expect([box.seal('whsec_a.b', 'x'), box.open('whsec_a.b', 'x')]).toEqual(['whsec_a.b', 'whsec_a.b']);
});
