import { expect, test } from '@jest/globals';
import { emptyDiff } from '../diff/records-diff';
import { destination } from '../testing/example';
import { withoutMisfits } from './without-misfits';

const giveBack = (fields: Record<string, { before: string | number | null; after: null }>) =>
  withoutMisfits({ ...emptyDiff(), changed: { d: { kind: 'deal', fields } } }, destination).changed.d?.fields;

test('what is given back must fit the field as it is now', () => {
  expect(giveBack({ bays: { before: 6, after: null } })).toEqual({ bays: { before: 6, after: null } });
  expect(giveBack({ bays: { before: 'a few', after: null } })).toBeUndefined();
  expect(giveBack({ bays: { before: 'a few', after: null }, name: { before: 'Weir', after: null } })).toEqual({
    name: { before: 'Weir', after: null },
  });
});

test('a blank can always be given back, and what Hay Cart has itself; a field that is gone only as a blank', () => {
  expect(giveBack({ bays: { before: null, after: null } })).toBeDefined();
  expect(giveBack({ gone: { before: null, after: null } })).toBeDefined();
  expect(giveBack({ gone: { before: 'kept', after: null } })).toBeUndefined();
});

test('a record that comes back has what its fields hold now, and what it has of fields out of use', () => {
  const values = { name: 'Weir', bays: 'a few', gone: 'kept' };
  const { removed } = withoutMisfits({ ...emptyDiff(), removed: { d: { kind: 'deal', values } } }, destination);
  expect(removed.d!.values).toEqual({ name: 'Weir', gone: 'kept' });
});
