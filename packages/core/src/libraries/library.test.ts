import { describe, expect, jest, test } from '@jest/globals';
import { Library, LibraryMissing, withLibraries } from './library';

describe('a library', () => {
  test('that is at hand can be used at once', async () => {
    const library = new Library('numbers', { atHand: 7 });
    await library.load();
    expect(library.now).toBe(7);
  });

  test('is loaded when work asks for it, once, and the work begins again', async () => {
    const fetch = jest.fn(() => Promise.resolve(7));
    const [one, two] = [new Library('one', fetch), new Library('two', fetch)];
    expect(() => one.now).toThrow(LibraryMissing);
    const work = jest.fn(() => one.now + two.now);
    expect(await Promise.all([withLibraries(work), withLibraries(work)])).toEqual([14, 14]);
    expect(fetch).toHaveBeenCalledTimes(2);
    work.mockClear();
    expect(await withLibraries(work)).toBe(14);
    expect(work).toHaveBeenCalledTimes(1);
  });

  test('that cannot be brought says so, and is brought the next time', async () => {
    const fetch = jest.fn(() => Promise.resolve(7)).mockRejectedValueOnce(new Error('Offline.'));
    const library = new Library('numbers', fetch);
    await expect(withLibraries(() => library.now)).rejects.toThrow('Offline.');
    expect(await withLibraries(() => library.now)).toBe(7);
  });

  test('does not hide any other failure of the work', async () => {
    await expect(
      withLibraries(() => {
        throw new TypeError('No.');
      }),
    ).rejects.toThrow(TypeError);
  });
});
