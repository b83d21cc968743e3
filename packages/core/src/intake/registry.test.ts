import { describe, expect, test } from '@jest/globals';
import { INTAKE_KINDS, intakeKind } from './registry';

const intake = { key: 'k_1', slug: 'visit' };

describe('a kind of intake', () => {
  test.each(INTAKE_KINDS)('$kind keeps its example, and asks only for what it keeps', (kind) => {
    expect(kind.settings.parse(kind.example)).toEqual(kind.example);
    for (const { key } of kind.asks) expect(kind.example).toHaveProperty(key);
    expect(kind.settings.safeParse({ ...kind.example, other: 1 }).success).toBe(false);
    expect(intakeKind(kind.kind)).toBe(kind);
  });

  test.each(INTAKE_KINDS)('$kind is reached where it takes posts, by an address of its own', (kind) => {
    const address = kind.address(intake);
    if (kind.takesPosts) expect(address).toMatch(/^\/[a-z]+\/(k_1|visit)$/);
    else expect(address).toBeNull();
    expect(kind.asks.length === 0 || kind.isMadeByName).toBe(true);
  });

  test('has a name of its own, and no other is known', () => {
    expect(new Set(INTAKE_KINDS.map(({ kind }) => kind)).size).toBe(INTAKE_KINDS.length);
    expect(() => intakeKind('fax')).toThrow('no kind of intake “fax”');
  });
});
