import { describe, expect, test } from '@jest/globals';
import { destination } from '../testing/example';
import { readChannelRules, readIntakeSource } from './read-rules';
import { partsAsked, rulesOfTable, tableOfParts } from './rules-table';
import { USUAL_RULES } from './usual-rules';

const read = (given: unknown) => readChannelRules(given, destination);
const wrong = (given: unknown) => {
  const found = read(given);
  return found.ok ? [] : found.problems.map(({ at, text }) => [at, text]);
};

describe('channel rules', () => {
  test('that are the usual ones are right as they are', () =>
    expect(read(USUAL_RULES)).toEqual({ ok: true, read: USUAL_RULES }));

  test('tell every cell that cannot be read, every row without a channel, and names under two', () =>
    expect(
      wrong({
        rules: [
          { when: { site: { test: 'starts-with', value: [] }, page: { test: 'unread', value: 'from' } }, channel: 'a' },
          { when: { click: { test: 'no-such-test' } }, channel: ' ' },
        ],
        names: [
          { name: 'Growers Weekly', spellings: ['GW'] },
          { name: 'Glass World', spellings: ['g.w.'] },
        ],
      }),
    ).toEqual([
      ['/rules/0/when/site', 'Row 1, Referring site: Type what to compare with.'],
      ['/rules/0/when/page', expect.stringContaining('Row 1, Page: ')],
      ['/rules/1/when/click', 'Row 2, Click parameter: There is no test “no-such-test”.'],
      ['/rules/1/channel', 'Row 2 names no channel.'],
      ['/names/1', '“g.w.” is a spelling of “Growers Weekly” already.'],
    ]));

  test.each([
    [null],
    ['x'],
    [{}],
    [{ rules: [], names: [{ name: '', spellings: ['a'] }] }],
    [{ rules: [{}], names: [] }],
  ])('that are %j are none', (given) => expect(read(given).ok).toBe(false));

  test('shown by some parts alone keep what is asked of them', () => {
    const parts = partsAsked(USUAL_RULES.rules);
    expect(parts).toEqual(['utm_source', 'utm_medium', 'utm_campaign', 'site', 'sheet']);
    expect(rulesOfTable(tableOfParts(USUAL_RULES.rules, parts))).toEqual(USUAL_RULES.rules);
    const [first] = rulesOfTable(tableOfParts(USUAL_RULES.rules, ['utm_medium']));
    expect(first).toEqual({ when: {}, channel: 'file', note: 'Rows of a file: nobody visited' });
  });
});

describe('what an intake says', () => {
  test.each([
    [{}, true],
    [{ constant: { source: 'Fair' }, always: true, answers: { said: 'heard' } }, true],
    [{ constant: { source: ' ' } }, false],
    [{ constant: { colour: 'green' } }, false],
    [{ answers: { utm_shoe: 'a' } }, false],
    [{ always: 'yes' }, false],
    [[], false],
  ])('%j is right: %s', (given, ok) => expect(readIntakeSource(given).ok).toBe(ok));
});
