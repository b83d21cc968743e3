import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { DataTable } from './data-table';

// jsdom lays nothing out: everything is as high as a few rows.
const sizes = ['clientHeight', 'clientWidth'] as const;
beforeAll(() => {
  for (const size of sizes) Object.defineProperty(HTMLElement.prototype, size, { configurable: true, value: 320 });
  HTMLElement.prototype.scrollTo = () => {};
});
afterAll(() => sizes.forEach((size) => delete (HTMLElement.prototype as Partial<HTMLElement>)[size]));

interface Row {
  id: string;
  name: string;
}
const rowsOf = (count: number): Row[] => Array.from({ length: count }, (_, n) => ({ id: `r${n}`, name: `Row ${n}` }));

function Table({ rows = rowsOf(8), ...rest }: Partial<Parameters<typeof DataTable<Row>>[0]>) {
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const choose = (ids: readonly string[], add: boolean) =>
    setChosen((before) => new Set(add ? [...before, ...ids] : [...before].filter((id) => !ids.includes(id))));
  return (
    <DataTable
      label="Rows"
      columns={[{ id: 'name', header: 'Name', cell: ({ row }) => row.original.name }]}
      rows={rows}
      nameOf={({ name }) => name}
      choice={{ chosen, choose }}
      empty="Nothing"
      {...rest}
    />
  );
}

const chosen = () =>
  screen
    .getAllByRole<HTMLInputElement>('checkbox', { name: /^Choose Row/ })
    .flatMap((box, index) => (box.checked ? [index] : []));
const box = (index: number) => screen.getByRole('checkbox', { name: `Choose Row ${index}` });

test('a range goes from the box that was ticked last to the one with Shift, and back', async () => {
  render(<Table />);
  const user = userEvent.setup();
  await user.click(box(1));
  await user.keyboard('{Shift>}');
  await user.click(box(4));
  expect(chosen()).toEqual([1, 2, 3, 4]);
  await user.click(box(3));
  await user.keyboard('{/Shift}');
  expect(chosen()).toEqual([1, 2]);
});

test('all that is shown is chosen by one box', async () => {
  render(<Table />);
  await userEvent.click(screen.getByRole('checkbox', { name: 'Choose all that are shown' }));
  expect(chosen()).toEqual([0, 1, 2, 3, 4, 5, 6, 7]);
});

test('keys go from row to row, choose one and open it, and follow what is open', async () => {
  const open = jest.fn();
  const { rerender } = render(<Table open={open} />);
  await userEvent.keyboard('jjk');
  await userEvent.keyboard('x');
  expect(chosen()).toEqual([0]);
  await userEvent.keyboard('j{Enter}');
  expect(open.mock.calls).toEqual([[{ id: 'r1', name: 'Row 1' }]]);
  rerender(<Table open={open} opened="r1" />);
  await userEvent.keyboard('{ArrowDown}');
  expect(open.mock.calls.at(-1)).toEqual([{ id: 'r2', name: 'Row 2' }]);
});

test('rows are told with their places among all', () => {
  render(<Table total={2_830} />);
  expect(screen.getByRole('table').getAttribute('aria-rowcount')).toBe('2831');
  expect(screen.getByRole('row', { name: /Row 0/ }).getAttribute('aria-rowindex')).toBe('2');
});

test('the next page is read before the end is reached', () => {
  const more = jest.fn();
  const { rerender } = render(<Table rows={rowsOf(200)} more={more} />);
  expect(more).not.toHaveBeenCalled();
  rerender(<Table rows={rowsOf(20)} more={more} />);
  expect(more).toHaveBeenCalled();
});

test('where there is no row it says so, beneath the heads', () => {
  render(<Table rows={[]} />);
  expect(screen.getByRole('columnheader', { name: 'Name' })).toBeTruthy();
  expect(screen.getByText('Nothing')).toBeTruthy();
});
