import { Readable } from 'node:stream';
import { text } from 'node:stream/consumers';
import { describe, expect, test } from '@jest/globals';
import { csvCell, exportTexts, writtenAside } from './export-file';

async function* rows(failing: boolean): AsyncGenerator<string[]> {
  yield await Promise.resolve(['a', 'b']);
  if (failing) throw new Error('The disk is full.');
  yield ['c'];
}

describe('a file that is written aside', () => {
  test('is there whole, to be read from its beginning', async () => {
    const file = await writtenAside(() => exportTexts(rows(false), (row) => `${row}\n`));
    expect((await file.stat()).size).toBe(6);
    expect(await text(file.createReadStream({ start: 0 }))).toBe('a\nb\nc\n');
    // Reading to the end has closed it.
    await expect(file.stat()).rejects.toThrow('closed');
  });

  test('tells of a failure, on the way or before anything is read', async () => {
    await expect(writtenAside(() => exportTexts(rows(true), (row) => row))).rejects.toThrow('The disk is full.');
    const broken = () => new Readable({ construct: (done) => done(new Error('No connection.')) });
    await expect(writtenAside(broken)).rejects.toThrow('No connection.');
  });
});

test.each(['=1+1', ' =1+1', '\u00a0=1+1', '\t@a', '\n-a', '\ufeff+a'])('the cell %j is no formula', (cell) =>
  expect(csvCell(cell)).toBe(`'${cell}`),
);
