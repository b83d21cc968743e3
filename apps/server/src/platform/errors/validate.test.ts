import { describe, expect, test } from '@jest/globals';
import { IsObject, IsOptional, IsString } from 'class-validator';
import { ProblemError } from './problem-error';
import { validation } from './validate';

class Dto {
  @IsString() name: string;
  @IsOptional() @IsObject() payload?: object;
}

const read = (body: object) => validation.transform(body, { type: 'body', metatype: Dto });
/** Where it is refused. */
async function refusedAt(body: object): Promise<string[]> {
  const cause: unknown = await read(body).catch((one: unknown) => one);
  expect(cause).toBeInstanceOf(ProblemError);
  return (cause as ProblemError).errors!.map(({ at }) => at!);
}

describe('what is sent', () => {
  test('is taken where it fits, whatever its keys are called', async () => {
    const payload = { prototype: { name: 1 }, 'a/b': [{ '': null }], length: 3 };
    expect(await read({ name: 'Ada', payload })).toEqual({ name: 'Ada', payload });
  });

  test('is refused with its place where it does not', async () => {
    expect(await refusedAt({ name: 1 })).toEqual(['/name']);
    expect(await refusedAt({ name: 'Ada', 'a/b': 1 })).toEqual(['/a~1b']);
  });

  test.each<[object, string]>([
    [{ constructor: 'x' }, '/payload/constructor'],
    [{ list: [{}, { constructor: null }] }, '/payload/list/1/constructor'],
    [{ 'a/b': { constructor: { prototype: {} } } }, '/payload/a~1b/constructor'],
  ])('is refused where a property inside is called as what makes an object: %j', async (payload, at) => {
    expect(await refusedAt({ name: 'Ada', payload })).toEqual([at]);
    expect(await refusedAt({ unheard: payload })).toEqual([at.replace('/payload', '/unheard')]);
  });

  test('is looked at in time, however deep and wide it is', async () => {
    let deep: object = {};
    for (let level = 0; level < 20_000; level += 1) deep = { deep };
    expect(await refusedAt({ name: 'Ada', payload: deep, constructor: { constructor: 1 } })).toEqual([
      '/constructor/constructor',
    ]);
  });
});
