import { describe, expect, test } from '@jest/globals';
import { HeldNames } from './held-names';

describe('held names', () => {
  test('are free until somebody holds one of them, and again when all have let go', () => {
    const held = new HeldNames();
    expect(held.areFree(['a', 'b'])).toBe(true);
    const letGo = held.hold(['a', 'a', 'b']);
    const letGoToo = held.hold(['b', 'c']);
    expect([held.areFree(['a']), held.areFree(['c', 'd']), held.areFree(['d']), held.areFree([])]).toEqual([
      false,
      false,
      true,
      true,
    ]);
    letGo();
    expect([held.areFree(['a']), held.areFree(['b'])]).toEqual([true, false]);
    letGoToo();
    expect(held.areFree(['a', 'b', 'c'])).toBe(true);
  });

  test('are let go of once, however often that is said', () => {
    const held = new HeldNames();
    const letGo = held.hold(['a']);
    const others = held.hold(['a']);
    letGo();
    letGo();
    expect(held.areFree(['a'])).toBe(false);
    others();
    expect(held.areFree(['a'])).toBe(true);
  });
});
