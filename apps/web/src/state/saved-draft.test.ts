import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { ApiError } from '../api/client';
import { createDraft } from './saved-draft';

interface Told {
  value: string;
  revision: number;
}

/** A server that answers when it is told to, so that a test decides what arrives when. */
function server() {
  const asked: { value: string; upon: number; answer: () => void; fail: (cause: unknown) => void }[] = [];
  const put = (_: string, value: string, saved: Told) =>
    new Promise<Told>((resolve, reject) => {
      const answer = () => resolve({ value, revision: saved.revision + 1 });
      asked.push({ value, upon: saved.revision, answer, fail: reject });
    });
  return { asked, put };
}

const settled = async () => {
  for (let turn = 0; turn < 10; turn += 1) await Promise.resolve();
};
const rest = async () => {
  jest.advanceTimersByTime(500);
  await settled();
};
const problem = (status: number) =>
  new ApiError({ type: 'about:blank', title: '', status, code: 'internal', detail: 'No.' });

beforeEach(() => {
  jest.useFakeTimers();
  Object.assign(globalThis, { window: globalThis });
});
afterEach(() => {
  jest.useRealTimers();
  Reflect.deleteProperty(globalThis, 'window');
});

function opened() {
  const { asked, put } = server();
  const draft = createDraft<string, Told>(put);
  draft.getState().open('form', 'a', { value: 'a', revision: 1 });
  return { asked, draft, type: (text: string) => draft.getState().change(() => text) };
}

describe('a draft', () => {
  test('shows what is typed at once, and saves it once typing rests', async () => {
    const { asked, draft, type } = opened();
    type('ab');
    type('abc');
    expect(draft.getState()).toMatchObject({ value: 'abc', saving: 'saving' });
    expect(asked).toEqual([]);
    await rest();
    expect(asked.map(({ value }) => value)).toEqual(['abc']);
    asked[0]!.answer();
    await settled();
    expect(draft.getState()).toMatchObject({ saving: 'saved', saved: { value: 'abc', revision: 2 } });
  });

  test('saves one after the other, each upon what the one before answered', async () => {
    const { asked, draft, type } = opened();
    type('b');
    await rest();
    type('c');
    await rest();
    expect(asked).toHaveLength(1);
    asked[0]!.answer();
    await settled();
    expect(asked.map(({ value, upon }) => [value, upon])).toEqual([
      ['b', 1],
      ['c', 2],
    ]);
    expect(draft.getState().saving).toBe('saving');
    asked[1]!.answer();
    await settled();
    expect(draft.getState()).toMatchObject({ saving: 'saved', saved: { revision: 3 } });
  });

  test('is undone and done again, and a new change forgets what was undone', () => {
    const { draft, type } = opened();
    type('b');
    type('c');
    const { undo, redo } = draft.getState();
    undo();
    undo();
    undo();
    expect(draft.getState()).toMatchObject({ value: 'a', past: [], future: ['b', 'c'] });
    redo();
    expect(draft.getState()).toMatchObject({ value: 'b', past: ['a'], future: ['c'] });
    type('d');
    redo();
    expect(draft.getState()).toMatchObject({ value: 'd', past: ['a', 'b'], future: [] });
  });

  test('keeps the last hundred changes', () => {
    const { draft, type } = opened();
    for (let n = 0; n < 150; n += 1) type(String(n));
    for (let n = 0; n < 150; n += 1) draft.getState().undo();
    expect(draft.getState().value).toBe('49');
  });

  test('tries again when the server does not answer, and loses nothing of what was typed', async () => {
    const { asked, draft, type } = opened();
    type('b');
    await rest();
    asked[0]!.fail(problem(503));
    await settled();
    expect(draft.getState()).toMatchObject({ value: 'b', saving: 'failed' });
    jest.advanceTimersByTime(3_000);
    await settled();
    asked[1]!.answer();
    await settled();
    expect(draft.getState()).toMatchObject({ value: 'b', saving: 'saved', error: null });
  });

  test.each([409, 422])('asks nothing again that the server refused with %i', async (status) => {
    const { asked, draft, type } = opened();
    type('b');
    await rest();
    asked[0]!.fail(problem(status));
    await settled();
    jest.advanceTimersByTime(60_000);
    await settled();
    expect(asked).toHaveLength(1);
    expect(draft.getState()).toMatchObject({ value: 'b', saving: 'failed' });
  });

  test('that is left while it is saved does not show in the one that is opened next', async () => {
    const { asked, draft, type } = opened();
    type('b');
    await rest();
    draft.getState().open('another', 'x', { value: 'x', revision: 7 });
    asked[0]!.answer();
    await settled();
    expect(draft.getState()).toMatchObject({ id: 'another', value: 'x', saved: { value: 'x', revision: 7 } });
  });

  test('with nothing to save is saved without asking', async () => {
    const { asked, draft } = opened();
    await draft.getState().save();
    expect(asked).toEqual([]);
  });

  test('that somebody else saved meanwhile is brought together with theirs, and saved upon it', async () => {
    const { asked, put } = server();
    const draft = createDraft<string, Told>(put, async (_, mine, base) => {
      await Promise.resolve();
      return { value: `${mine} over ${base.value} and theirs`, saved: { value: 'theirs', revision: 7 } };
    });
    draft.getState().open('route', 'a', { value: 'a', revision: 1 });
    draft.getState().change(() => 'mine');
    await rest();
    asked[0]!.fail(
      new ApiError({ type: '', title: '', status: 409, code: 'changed-meanwhile', detail: 'Somebody did.' }),
    );
    await settled();
    expect(draft.getState()).toMatchObject({ value: 'mine over a and theirs', saved: { revision: 7 } });
    await rest();
    expect(asked.at(-1)).toMatchObject({ value: 'mine over a and theirs', upon: 7 });
  });

  test('takes over what somebody else saved only while nothing of its own waits', async () => {
    const { asked, draft, type } = opened();
    expect(draft.getState().takeOver('theirs', { value: 'theirs', revision: 2 })).toBe(true);
    expect(draft.getState()).toMatchObject({ value: 'theirs', past: [] });
    type('mine');
    expect(draft.getState().takeOver('more of theirs', { value: 'more of theirs', revision: 3 })).toBe(false);
    await rest();
    expect(asked[0]).toMatchObject({ value: 'mine', upon: 2 });
  });
});
