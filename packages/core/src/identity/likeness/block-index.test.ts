import { describe, expect, test } from '@jest/globals';
import { generatePeople } from '../../testing/people';
import { BlockIndex, LARGEST_BLOCK } from './block-index';
import { blocksOf } from './blocks';
import { comparedForm, type ComparedRecord } from './compared';

const formsOf = (seed: number, people: number) =>
  generatePeople(seed, people).records.map(({ values }) => comparedForm('contact', values));
const named = (first: string, last: string) => comparedForm('contact', { first_name: first, last_name: last });
const asText = (pairs: Iterable<[number, number]>) => [...pairs].map(([one, other]) => `${one} ${other}`);

/** The pairs as one would find them by hand: of every block that is small enough, each two. */
function pairsByHand(records: readonly ComparedRecord[], largest: number): Set<string> {
  const members = new Map<string, number[]>();
  records.forEach((record, place) => {
    for (const block of blocksOf(record)) members.set(block, [...(members.get(block) ?? []), place]);
  });
  const pairs = [...members.values()]
    .filter((places) => places.length <= largest)
    .flatMap((places) => places.flatMap((other, index) => places.slice(0, index).map((one) => `${one} ${other}`)));
  return new Set(pairs);
}

describe('the pairs of an index of blocks', () => {
  test.each([1, 2, 3])('are all that share a block, once each (people %i)', (seed) => {
    const forms = formsOf(seed, 400);
    const pairs = asText(new BlockIndex(forms).pairs());
    expect(new Set(pairs).size).toBe(pairs.length);
    expect(new Set(pairs)).toEqual(pairsByHand(forms, LARGEST_BLOCK));
  });

  test('leave out blocks that are larger than wanted', () => {
    const forms = formsOf(4, 400);
    const pairs = asText(new BlockIndex(forms).pairs(0, forms.length, 3));
    expect(new Set(pairs)).toEqual(pairsByHand(forms, 3));
    expect(pairs.length).toBeLessThan(asText(new BlockIndex(forms).pairs()).length);
  });

  test('of some ranges together are those of all, in their order', () => {
    const forms = formsOf(5, 300);
    const index = new BlockIndex(forms);
    const parts = [0, 100, 250].map((from, at) => asText(index.pairs(from, [100, 250, forms.length][at])));
    expect(parts.flat()).toEqual(asText(index.pairs()));
  });

  test('are known of records that are added later', () => {
    const index = new BlockIndex([named('Ada', 'Thackeray')]);
    expect(asText(index.pairs())).toEqual([]);
    index.add(named('Ada', 'Thackery'));
    index.add(named('Piers', 'Oduya'));
    expect(asText(index.pairs())).toEqual(['0 1']);
    expect(index.size).toBe(3);
  });

  test('are none of no records, and none of records that tell nothing', () => {
    expect(asText(new BlockIndex().pairs())).toEqual([]);
    expect(asText(new BlockIndex([comparedForm('contact', {}), comparedForm('contact', {})]).pairs())).toEqual([]);
  });

  test('are found where there are more records than there is room for at first', () => {
    const forms = Array.from({ length: 3_000 }, (_, n) =>
      comparedForm('contact', { email: `person.${n % 1_500}@weir${n % 1_500}.example` }),
    );
    expect(asText(new BlockIndex(forms).pairs())).toEqual(Array.from({ length: 1_500 }, (_, n) => `${n} ${n + 1_500}`));
  });
});
