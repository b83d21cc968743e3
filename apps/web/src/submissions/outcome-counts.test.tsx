import { expect, jest, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { OutcomeCounts } from './outcome-counts';

const names = () => screen.getAllByRole('button').map((button) => button.textContent);
const pressed = () => screen.getAllByRole('button', { pressed: true }).map((button) => button.textContent);

test('what runs come to is always there, what is rare only where there is any', () => {
  render(<OutcomeCounts counts={{ written: 1_300, waiting: 2 }} chosen={undefined} choose={() => {}} />);
  expect(names()).toEqual([
    'All 1,302',
    ' Written 1,300',
    ' Held 0',
    ' Skipped 0',
    ' Failed 0',
    ' Taken back 0',
    ' Waiting 2',
  ]);
  expect(pressed()).toEqual(['All 1,302']);
});

test('one that is chosen stays in sight, and gives way to all when it is pressed again', async () => {
  const choose = jest.fn();
  render(<OutcomeCounts counts={{ written: 3 }} chosen="set-aside" choose={choose} />);
  expect(pressed()).toEqual([' Set aside 0']);
  await userEvent.click(screen.getByRole('button', { name: 'Failed 0' }));
  await userEvent.click(screen.getByRole('button', { name: 'Set aside 0' }));
  await userEvent.click(screen.getByRole('button', { name: 'All 3' }));
  expect(choose.mock.calls).toEqual([['failed'], [null], [null]]);
});
