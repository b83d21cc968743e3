import { describe, expect, test } from '@jest/globals';
import { generatePeople } from '../../testing/people';
import { BlockIndex } from './block-index';
import { comparedForm, type ComparedRecord } from './compared';
import { pairsAround } from './found-pairs';
import { startingModel } from './model';
import { likeness } from './score';

const ASK = 0.2;
const model = startingModel('contact');
const people = new Map<string, ComparedRecord>(
  generatePeople(17, 300).records.map(({ id, values }) => [id, comparedForm('contact', values)]),
);

/** All pairs that a scan would find. */
function pairsOfAll(): Map<string, number> {
  const [ids, forms] = [[...people.keys()], [...people.values()]];
  const found = new Map<string, number>();
  for (const [a, b] of new BlockIndex(forms).pairs(0, forms.length, forms.length)) {
    const { probability } = likeness(model, forms[a]!, forms[b]!);
    if (probability >= ASK) found.set([ids[a]!, ids[b]!].sort().join(' '), probability);
  }
  return found;
}

const asMap = (pairs: ReturnType<typeof pairsAround>) =>
  new Map(pairs.map(({ one, other, probability }) => [`${one} ${other}`, probability]));

describe('the pairs around some records', () => {
  test('are, around all of them, those of a scan, each once and with its probability', () => {
    const pairs = pairsAround(people, people, model, ASK);
    expect(pairs.length).toBeGreaterThan(20);
    expect(new Set(pairs.map(({ one, other }) => `${one} ${other}`)).size).toBe(pairs.length);
    expect(asMap(pairs)).toEqual(pairsOfAll());
  });

  test('are, around a few, those of all in which one of these stands', () => {
    const few = new Map([...people].filter((_, index) => index % 7 === 0));
    const expected = new Map([...pairsOfAll()].filter(([pair]) => pair.split(' ').some((id) => few.has(id))));
    expect(expected.size).toBeGreaterThan(3);
    expect(asMap(pairsAround(few, people, model, ASK))).toEqual(expected);
  });

  test('are none where nobody is near', () => {
    expect(pairsAround(people, new Map(), model, ASK)).toEqual([]);
  });
});
