import { expect, test } from '@jest/globals';
import { similarNames } from './similar-names';

const groups = (...names: string[]) => similarNames(names.map((name, index) => ({ name, touches: 100 - index })));

test.each<[string[], string[]]>([
  [
    ['Growers Weekly', 'growersweekly', 'GW-ads', 'growers_weekly'],
    ['growersweekly', 'GW-ads', 'growers_weekly'],
  ],
  [['Gartenbau heute', 'gartenbau-huete'], ['gartenbau-huete']],
  [['Österreichische Gärtner', 'osterreichische gartner'], ['osterreichische gartner']],
  [['園芸ウィークリー', '園芸 ウィークリー'], ['園芸 ウィークリー']],
  [['weir.example', 'www.weir.example'], []],
  [['Fair 2026', 'Fair 2027'], []],
  [['spring', 'string'], ['string']],
  [['Glass', 'Grass'], []],
  [['Meadow', 'Orchard'], []],
  [['---', '***'], []],
])('of %j the spellings of the first are %j', (names, spellings) =>
  expect(groups(...names)).toEqual(spellings.length ? [{ name: names[0], spellings }] : []),
);
