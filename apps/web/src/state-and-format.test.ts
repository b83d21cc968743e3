import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import type { RouteDefinition } from '@haycart/core';
import type { IntakeLine } from '@haycart/api';
import { completionOf, shownLines } from './intakes/intake-lines';
import { ApiError, call, query } from './api/client';
import { age, recordNumber, seconds, shortMoney } from './components/format';
import { changeFill, changeWrite, useDraft } from './routes/draft';
import { sinceOf } from './components/period';

const definition: RouteDefinition = {
  format: 'haycart.route/1',
  name: 'R',
  from: ['survey'],
  writes: [{ as: 'person', record: 'contact', fills: [] }],
};
const answered = (status: number, body: unknown) =>
  Promise.resolve(new Response(body === undefined ? null : JSON.stringify(body), { status }));
const realFetch = globalThis.fetch;
const fetched = jest.fn<typeof fetch>();

beforeEach(() => {
  jest.useFakeTimers({ now: new Date('2026-03-14T09:30:00Z') });
  Object.assign(globalThis, { fetch: fetched, window: globalThis });
  fetched.mockReset();
});
afterEach(() => {
  jest.useRealTimers();
  globalThis.fetch = realFetch;
});

describe('calling the server', () => {
  test('answers what it says, and nothing for no content', async () => {
    fetched.mockReturnValueOnce(answered(200, { a: 1 })).mockReturnValueOnce(answered(204, undefined));
    expect(await call('GET', '/x')).toEqual({ a: 1 });
    expect(await call('DELETE', '/x')).toBeUndefined();
  });

  test('throws the problem, also when nobody answers or the answer makes no sense', async () => {
    fetched
      .mockReturnValueOnce(answered(422, { code: 'refused', status: 422, detail: 'No.' }))
      .mockReturnValueOnce(Promise.reject(new TypeError()))
      .mockReturnValueOnce(Promise.resolve(new Response('<html>', { status: 502 })));
    const problems = [];
    for (let n = 0; n < 3; n += 1)
      problems.push(await call('GET', '/x').catch((error: ApiError) => error.problem.code));
    expect(problems).toEqual(['refused', 'not-available', 'internal']);
  });

  test('leaves out of a query what is not set', () =>
    expect(query({ a: 1, b: '', c: undefined, d: null, e: 'x y' })).toBe('?a=1&e=x+y'));
});

describe('a draft', () => {
  beforeEach(() => useDraft.getState().open('r', definition, { id: 'r', draft: definition } as never));

  test('is changed at once, saved when typing rests, and told so', async () => {
    fetched.mockImplementation(() => answered(200, { id: 'r', problems: [] }));
    changeFill('person', 'email', (fill) => ({ ...fill, value: { parts: [{ answer: 'email' }] } }));
    changeWrite('person', (write) => ({ ...write, whenMatched: 'leave' }));
    expect(useDraft.getState()).toMatchObject({
      saving: 'saving',
      value: { writes: [{ whenMatched: 'leave', fills: [{ field: 'email' }] }] },
    });
    expect(fetched).not.toHaveBeenCalled();
    await jest.advanceTimersByTimeAsync(600);
    expect(fetched).toHaveBeenCalledTimes(1);
    expect(useDraft.getState().saving).toBe('saved');
  });

  test('can be undone and done again, step by step', () => {
    const name = () => useDraft.getState().value!.name;
    for (const next of ['A', 'B']) useDraft.getState().change((draft) => ({ ...draft, name: next }));
    useDraft.getState().undo();
    expect(name()).toBe('A');
    useDraft.getState().undo();
    useDraft.getState().undo();
    expect(name()).toBe('R');
    useDraft.getState().redo();
    expect(name()).toBe('A');
    useDraft.getState().change((draft) => ({ ...draft, name: 'C' }));
    useDraft.getState().redo();
    expect(name()).toBe('C');
  });

  test('that the server cannot take just now is saved when it can', async () => {
    fetched.mockReturnValueOnce(Promise.reject(new TypeError())).mockImplementation(() => answered(200, { id: 'r' }));
    useDraft.getState().change((draft) => ({ ...draft, name: 'Kept' }));
    await jest.advanceTimersByTimeAsync(600);
    expect(useDraft.getState()).toMatchObject({ saving: 'failed', value: { name: 'Kept' } });
    await jest.advanceTimersByTimeAsync(3_100);
    expect(useDraft.getState().saving).toBe('saved');
  });

  test('is saved one change after the other, each upon what the server told of the one before, also while it is closed', async () => {
    const sent: string[] = [];
    fetched.mockImplementation((_, init) => {
      sent.push((JSON.parse(String((init as RequestInit).body)) as { name: string }).name);
      return answered(200, { id: 'r' });
    });
    useDraft.getState().change((draft) => ({ ...draft, name: 'First' }));
    const first = useDraft.getState().save();
    useDraft.getState().change((draft) => ({ ...draft, name: 'Second' }));
    const second = useDraft.getState().save();
    useDraft.setState({ id: null });
    await Promise.all([first, second]);
    expect(sent).toEqual(['First', 'Second']);
  });

  test('loses a fill that is taken away', () => {
    changeFill('person', 'email', (fill) => fill);
    changeFill('person', 'email', () => null);
    expect(useDraft.getState().value!.writes[0]!.fills).toEqual([]);
  });
});

describe('what people read', () => {
  test.each([
    [new Date('2026-03-14T09:20:00Z'), '10 min'],
    [new Date('2026-03-14T04:30:00Z'), '5 h'],
    [new Date('2026-03-02T09:30:00Z'), '12 d'],
  ])('%s is %s old', (since, words) => expect(age(since.toISOString())).toBe(words));

  test('amounts are short where space is', () => {
    expect([48_000_00, 2_500_000_00, 950_00].map((amount) => shortMoney({ amount, currency: 'GBP' }))).toEqual([
      '£ 48k',
      '£ 2.50m',
      '£ 950',
    ]);
  });

  test('times, numbers and periods have one form', () => {
    expect([seconds(0.19), seconds(45), seconds(660)]).toEqual(['0.19 s', '45 s', '11 min']);
    expect(recordNumber('contact', 412)).toBe('C-0412');
    expect([sinceOf('all'), sinceOf('day')]).toEqual([undefined, '2026-03-13T09:30:00.000Z']);
  });
});

describe('the list of intakes', () => {
  const line = (key: string, more = {}) =>
    ({ key, name: key, kind: 'form', archived: false, submissions: 0, lastAt: null, ...more }) as unknown as IntakeLine;
  const intakes = [
    line('Survey', { submissions: 5 }),
    line('Surveys'),
    line('Old', { archived: true, submissions: 9 }),
    line('Prices', { submissions: 7 }),
  ];
  const months = [{ key: 'Prices', views: 10, starts: 4, sends: 5, pages: [] }];
  const shown = (wish: Partial<Parameters<typeof shownLines>[2]>) =>
    shownLines(intakes, months, { find: '', archived: false, sort: null, ...wish });
  const keys = (wish: Parameters<typeof shown>[0]) => shown(wish).map(({ key }) => key);

  test('is found by name, without the archived, and sorted by what one chooses', () => {
    expect(keys({})).toEqual(['Survey', 'Surveys', 'Prices']);
    expect(keys({ archived: true, find: 'o' })).toEqual(['Old']);
    expect(keys({ sort: { field: 'submissions', down: true } })).toEqual(['Prices', 'Survey', 'Surveys']);
    expect(keys({ sort: { field: 'completion', down: true } })[0]).toBe('Prices');
  });

  test('marks names that may be taken for each other, and tells the completion where views are counted', () => {
    expect(shown({}).map(({ like }) => like)).toEqual(['Surveys', 'Survey', undefined]);
    expect(shown({}).map(completionOf)).toEqual([null, null, 0.5]);
  });
});
