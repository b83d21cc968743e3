import { expect, test } from '@jest/globals';
import { destination } from '../testing/example';
import { showRecordValue } from './show-record-value';

const [first] = destination.pipelines;
const other = { ...first!, key: 'repairs', name: 'Repairs', stages: [{ ...first!.stages[0]!, name: 'Called' }] };
const several = { ...destination, pipelines: [first!, other] };
const { key, name } = first!.stages[0]!;

test('a deal’s place is shown by the names of its pipeline and stage', () => {
  expect(showRecordValue(several, 'deal', 'pipeline', 'repairs')).toBe('Repairs');
  expect(showRecordValue(several, 'deal', 'stage', key, { pipeline: 'repairs' })).toBe('Called');
  expect(showRecordValue(several, 'deal', 'stage', key, { pipeline: first!.key })).toBe(name);
});

test('a stage whose pipeline is not known is shown by every name that its key has', () => {
  expect(showRecordValue(several, 'deal', 'stage', key)).toBe(`${name} or Called`);
  expect(showRecordValue(destination, 'deal', 'stage', key)).toBe(name);
});

test('what there is no name for is shown as it is, and a blank as nothing', () => {
  expect(showRecordValue(destination, 'deal', 'stage', 'gone')).toBe('gone');
  expect(showRecordValue(destination, 'deal', 'stage', null)).toBe('');
  expect(showRecordValue(destination, 'contact', 'stage', key)).toBe(key);
});
