import { act, renderHook } from '@testing-library/react';
import { expect, test } from '@jest/globals';
import { useHistory } from './use-history';

test('each change can be undone and done again; a new one forgets what was undone', () => {
  const { result } = renderHook(() => useHistory(0));
  const add = (by: number) => act(() => result.current.change((value) => value + by));
  add(1);
  add(10);
  expect(result.current.value).toBe(11);
  act(() => result.current.undo());
  expect(result.current.value).toBe(1);
  act(() => result.current.redo());
  expect(result.current.value).toBe(11);
  act(() => result.current.undo());
  add(100);
  expect(result.current.value).toBe(101);
  act(() => result.current.redo());
  expect(result.current.value).toBe(101);
  for (let times = 0; times < 5; times += 1) act(() => result.current.undo());
  expect(result.current.value).toBe(0);
});
