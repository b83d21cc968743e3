import { PassThrough, Readable } from 'node:stream';
import { buffer, text } from 'node:stream/consumers';
import { describe, expect, test } from '@jest/globals';
import { exportTexts } from './export-file';
import { GrowingFile } from './growing-file';

async function* rows(failing: boolean): AsyncGenerator<string[]> {
  yield await Promise.resolve(['a', 'b']);
  if (failing) throw new Error('The disk is full.');
  yield ['c'];
}
const lines = (failing: boolean) => exportTexts(rows(failing), (row) => `${row}\n`);

describe('a file that is read while it grows', () => {
  test('is whole, whether it was written before or is still being written', async () => {
    const before = await GrowingFile.begin();
    await before.write(lines(false));
    expect([before.size, await text(before.read())]).toEqual([6, 'a\nb\nc\n']);
    const meanwhile = await GrowingFile.begin();
    const reading = text(meanwhile.read());
    await meanwhile.write(lines(false));
    expect(await reading).toBe('a\nb\nc\n');
  });

  test('gives what is there before there is more', async () => {
    const file = await GrowingFile.begin();
    const source = new PassThrough();
    const writing = file.write(source);
    source.write('first');
    await file.holds(5);
    const reader = file.read()[Symbol.asyncIterator]() as AsyncIterator<Buffer>;
    expect(String((await reader.next()).value)).toBe('first');
    source.end('second');
    await writing;
    expect(String((await reader.next()).value)).toBe('second');
    expect((await reader.next()).done).toBe(true);
  });

  test('breaks off for its reader where writing did', async () => {
    const file = await GrowingFile.begin();
    const reading = text(file.read());
    await expect(file.write(lines(true))).rejects.toThrow('The disk is full.');
    await expect(reading).rejects.toThrow('The disk is full.');
    const never = await GrowingFile.begin();
    const broken = new Readable({ construct: (done) => done(new Error('No connection.')) });
    await expect(never.write(broken)).rejects.toThrow('No connection.');
    await never.holds(1);
    await expect(text(never.read())).rejects.toThrow('No connection.');
  });

  test('is not written on when its reader has left', async () => {
    const file = await GrowingFile.begin();
    let read = 0;
    async function* endless(): AsyncGenerator<string> {
      for (;;) {
        yield await Promise.resolve('x'.repeat(10_000));
        read += 1;
      }
    }
    const writing = file.write(Readable.from(endless()));
    await file.holds(20_000);
    file.read().destroy();
    await file.leave();
    await writing;
    expect(read).toBeGreaterThan(0);
  });

  test('is the same for bytes as for texts', async () => {
    const file = await GrowingFile.begin();
    const bytes = Buffer.from(Array.from({ length: 200_000 }, (_, index) => index % 256));
    await file.write(Readable.from([bytes.subarray(0, 70_001), bytes.subarray(70_001)]));
    expect((await buffer(file.read())).equals(bytes)).toBe(true);
  });
});
