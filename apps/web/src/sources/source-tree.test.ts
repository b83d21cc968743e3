import { expect, test } from '@jest/globals';
import type { SourceRow, SourcesReport } from '@haycart/api';
import { opens, shownLines, sourceTree } from './source-tree';

const row = (won: number, channel: string, source?: string, campaign?: string) =>
  ({
    channel,
    ...(source === undefined ? {} : { source }),
    ...(campaign === undefined ? {} : { campaign }),
    won,
  }) as SourceRow;
const report = (groups: SourceRow[], rows: SourceRow[]) => ({ groups, rows }) as SourcesReport;

const now = report(
  [row(9, 'e-mail'), row(9, 'e-mail', 'news'), row(1, 'direct'), row(1, 'direct', 'direct')],
  [row(5, 'e-mail', 'news', 'spring'), row(4, 'e-mail', 'news', ''), row(1, 'direct', 'direct', '')],
);

test('rows stand below those that they add up to, and only what is opened is shown', () => {
  const lines = sourceTree(now, undefined);
  const names = (opened: string[]) => shownLines(lines, new Set(opened)).map(({ name, depth }) => `${depth} ${name}`);
  expect(names([])).toEqual(['0 e-mail', '0 direct']);
  expect(names(['["e-mail"]', '["e-mail","news"]'])).toEqual(['0 e-mail', '1 news', '2 spring', '2 ', '0 direct']);
  const [mail] = lines;
  expect([mail!, mail!.below[0]!, lines[1]!.below[0]!].map(opens)).toEqual([true, true, false]);
});

test('each row knows what it brought before, and nothing where nothing is compared', () => {
  const before = report([row(3, 'e-mail')], []);
  expect(sourceTree(now, before).map(({ wonBefore }) => wonBefore)).toEqual([3, 0]);
  expect(sourceTree(now, undefined).map(({ wonBefore }) => wonBefore)).toEqual([null, null]);
});

test('rows that go by a field stand above the channels, and each knows what it goes by', () => {
  const apart = (splitValue: string, channel?: string) => ({ splitValue, ...row(1, channel!), channel }) as SourceRow;
  const lines = sourceTree(report([apart('dealers'), apart('')], [apart('dealers', 'paid'), apart('', '')]), undefined);
  expect(lines.map(({ name, part, below }) => [name, part, below.map((one) => [one.part, one.name])])).toEqual([
    ['dealers', 'splitValue', [['channel', 'paid']]],
    ['', 'splitValue', [['channel', '']]],
  ]);
});
