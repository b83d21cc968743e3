import { describe, expect, test } from '@jest/globals';
import { emptyDiff } from '../diff/records-diff';
import { known } from '../testing/example';
import { KnownRecords } from './known-records';

const AT = '2026-03-14T09:30:00.000Z';
const email = (value: string) => ({ record: 'contact' as const, kind: 'email' as const, value });
const ids = (records: { id: string }[]) => records.map(({ id }) => id);

describe('known records', () => {
  test('are found by their keys, oldest first', () => {
    const records = known(
      { id: 'b', kind: 'company', values: { phone: '+441' }, createdAt: '2026-02-01' },
      { id: 'a', kind: 'company', values: { phone: '+441' }, createdAt: '2026-01-01' },
    );
    expect(ids(records.withKey({ record: 'company', kind: 'phone', value: '+441' }))).toEqual(['a', 'b']);
    expect(records.withKey(email('gone@x.example'))).toEqual([]);
  });

  test('learn what a plan creates, with the time of each value', () => {
    const records = known();
    records.learn(
      { ...emptyDiff(), created: { n: { kind: 'contact', values: { email: 'n@x.example', full_name: 'N' } } } },
      AT,
    );
    expect(records.get('n')).toEqual({
      id: 'n',
      kind: 'contact',
      typed: [],
      values: { email: 'n@x.example', full_name: 'N' },
      createdAt: AT,
      writtenAt: { email: AT, full_name: AT },
    });
    expect(ids(records.withKey(email('n@x.example')))).toEqual(['n']);
  });

  test('learn what a plan changes, and are no longer found by a key that is gone', () => {
    const records = known({ id: 'c', kind: 'contact', values: { email: 'old@x.example' } });
    records.learn(
      {
        ...emptyDiff(),
        changed: {
          c: {
            kind: 'contact',
            fields: {
              email: { before: 'old@x.example', after: 'new@x.example' },
              phone: { before: null, after: '+441' },
            },
          },
        },
      },
      AT,
    );
    expect(records.withKey(email('old@x.example'))).toEqual([]);
    expect(ids(records.withKey(email('new@x.example')))).toEqual(['c']);
    expect(records.get('c')!.writtenAt).toEqual({ email: AT, phone: AT });
    records.learn(
      { ...emptyDiff(), changed: { c: { kind: 'contact', fields: { phone: { before: '+441', after: null } } } } },
      AT,
    );
    expect(records.get('c')!.values).toEqual({ email: 'new@x.example' });
  });

  test('know which records point to which', () => {
    const records = new KnownRecords(
      [{ id: 'd', kind: 'deal', values: {}, createdAt: AT, writtenAt: {} }],
      [{ from: 'd', to: 'c' }],
    );
    expect(ids(records.pointingTo('c'))).toEqual(['d']);
    expect(records.isLinked({ from: 'd', to: 'c' })).toBe(true);
    expect(records.isLinked({ from: 'c', to: 'd' })).toBe(false);
    records.learn({ ...emptyDiff(), linked: [{ from: 'd', to: 'f' }] }, AT);
    expect(ids(records.pointingTo('f'))).toEqual(['d']);
  });
});
