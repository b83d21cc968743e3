import { expect, jest, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ListFilters } from './list-filters';

const filter = (label: string, value: string, choose = jest.fn()) => ({
  label,
  any: `any ${label}`,
  value,
  options: [
    ['a', 'Alder'],
    ['b', 'Birch'],
  ] as const,
  choose,
});

test('what a list is narrowed to stands as words, each with another choice and a way out', async () => {
  const choose = jest.fn();
  render(<ListFilters filters={[filter('intake', 'a', choose), filter('route', '')]} />);
  expect(screen.queryByRole('combobox', { name: 'route' })).toBeNull();
  await userEvent.selectOptions(screen.getByRole('combobox', { name: 'intake' }), 'Birch');
  await userEvent.click(screen.getByRole('button', { name: 'Any intake' }));
  expect(choose.mock.calls).toEqual([['b'], [null]]);
});

test('the others are added by one button, which goes when there are none', async () => {
  const choose = jest.fn();
  const { rerender } = render(<ListFilters filters={[filter('intake', 'a'), filter('route', '', choose)]} />);
  await userEvent.click(screen.getByRole('button', { name: 'add a filter' }));
  await userEvent.selectOptions(screen.getByRole('combobox', { name: 'route' }), 'Alder');
  expect(choose.mock.calls).toEqual([['a']]);
  expect(screen.queryByRole('dialog')).toBeNull();
  rerender(<ListFilters filters={[filter('intake', 'a'), filter('route', 'a')]} />);
  expect(screen.queryByRole('button', { name: 'add a filter' })).toBeNull();
});

test('what an address names and nobody knows stands by its own name, not as if there were no filter', () => {
  render(<ListFilters filters={[filter('intake', 'gone')]} />);
  expect(screen.getByRole<HTMLSelectElement>('combobox', { name: 'intake' }).selectedOptions[0]!.text).toBe('gone');
});
