import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { packed } from './packed';

test('packed pieces come apart again as SQL takes them apart', () => {
  fc.assert(
    fc.property(fc.array(fc.oneof(fc.string({ unit: 'grapheme' }), fc.uint8Array().map(Buffer.from))), (pieces) => {
      const { bytes, starts, lengths } = packed(pieces);
      const apart = starts.map((start, index) => bytes.subarray(start - 1, start - 1 + lengths[index]!));
      expect(apart).toEqual(pieces.map((piece) => Buffer.from(piece)));
      expect(bytes).toHaveLength(lengths.reduce((sum, length) => sum + length, 0));
    }),
  );
});
