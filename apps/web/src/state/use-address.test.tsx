import { expect, test } from '@jest/globals';
import { act, fireEvent, render, screen } from '@testing-library/react';
import { createBrowserRouter } from 'react-router';
import { RouterProvider } from 'react-router/dom';
import { useAddress } from './use-address';

function List() {
  const [params, set] = useAddress();
  return (
    <>
      <input aria-label="find" value={params.get('q') ?? ''} onChange={({ target }) => set('q', target.value)} />
      <button
        onClick={() => {
          set('q', null);
          set('group', 'intake');
        }}
      >
        group
      </button>
    </>
  );
}

const show = async (address: string) => {
  window.history.replaceState(null, '', address);
  await act(async () => render(<RouterProvider router={createBrowserRouter([{ path: '*', element: <List /> }])} />));
};

test('two changes before anything is drawn both hold', async () => {
  await show('/routes?q=orchids&sort=failed');
  fireEvent.click(screen.getByRole('button'));
  expect(window.location.search).toBe('?sort=failed&group=intake');
});

test('what is typed stands in the field and in the address at once', async () => {
  await show('/routes');
  const field = screen.getByLabelText<HTMLInputElement>('find');
  fireEvent.change(field, { target: { value: 'a' } });
  expect(field.value).toBe('a');
  fireEvent.change(field, { target: { value: `${field.value}b` } });
  expect([field.value, window.location.search]).toEqual(['ab', '?q=ab']);
});
