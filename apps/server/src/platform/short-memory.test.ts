import { describe, expect, test } from '@jest/globals';
import { ShortMemory } from './short-memory';

describe('a short memory', () => {
  test('keeps a value for five seconds, nothing as well as something', () => {
    let now = 0;
    const memory = new ShortMemory<string | null>(10, () => now);
    expect(memory.get('a')).toBeUndefined();
    expect(memory.keep('a', null)).toBeNull();
    now = 4_999;
    expect(memory.get('a')).toBeNull();
    now = 5_000;
    expect(memory.get('a')).toBeUndefined();
  });

  test('forgets what changed', () => {
    const memory = new ShortMemory<number>(10);
    memory.keep('a', 1);
    memory.keep('b', 2);
    memory.forget('a');
    expect([memory.get('a'), memory.get('b')]).toEqual([undefined, 2]);
    memory.forgetAll();
    expect(memory.get('b')).toBeUndefined();
  });

  test('never holds more than its bound, and keeps what is asked for anew', () => {
    const memory = new ShortMemory<number>(3);
    const held = () => Array.from({ length: 100 }, (_, n) => memory.get(String(n))).filter((n) => n !== undefined);
    for (let n = 0; n < 100; n++) {
      expect(memory.keep(String(n), n)).toBe(n);
      expect(held().length).toBeLessThanOrEqual(3);
      expect(held()).toContain(n);
    }
    const before = held();
    memory.keep('99', 99);
    expect(held()).toEqual(before);
  });
});
