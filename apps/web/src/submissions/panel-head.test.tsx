import { expect, jest, test } from '@jest/globals';
import type { RunOutcome, SubmissionDetail } from '@haycart/api';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { PanelHead } from './panel-head';

const submission: SubmissionDetail = {
  id: 's',
  intake: { key: 'dealers', name: 'Dealer application' },
  receivedAt: '2026-11-30T10:31:04.000Z',
  state: 'routed',
  suspicion: null,
  payload: {},
  unreadable: null,
  visit: {},
  origin: {},
  channel: 'direct',
  source: 'direct',
  medium: null,
  campaign: null,
  who: 'Anneke Birkett',
  email: 'anneke@example.com',
  runs: [],
  raw: '',
  tries: 0,
  files: [],
};
const run = (outcome: RunOutcome, summary: string) => ({ id: 'r', route: { id: 't', name: 'T' }, outcome, summary });
const heading = () => screen.getByRole('heading', { level: 2 }).textContent;

test('the result stands first, and why nothing was written beneath it', () => {
  const { rerender } = render(
    <PanelHead submission={submission} run={run('written', 'New contact')} steps={null} close={() => {}} />,
  );
  expect(heading()).toBe('New contact');
  rerender(<PanelHead submission={submission} run={run('failed', 'No last name')} steps={null} close={() => {}} />);
  expect(heading()).toBe('Nothing was written');
  expect(screen.getByText('No last name')).toBeTruthy();
  rerender(
    <PanelHead submission={{ ...submission, state: 'waiting' }} run={undefined} steps={null} close={() => {}} />,
  );
  expect(heading()).toBe('Waiting to be routed');
});

test('one steps through the list, and not beyond its ends', async () => {
  const go = jest.fn<(at: number) => void>();
  const steps = { at: 0, of: 2, to: (at: number) => (at === 1 ? () => go(at) : undefined) };
  render(<PanelHead submission={submission} run={undefined} steps={steps} close={() => {}} />);
  expect(screen.getByText('1 of 2')).toBeTruthy();
  const before = screen.getByRole<HTMLButtonElement>('button', { name: 'The one before (k)' });
  expect(before.disabled).toBe(true);
  await userEvent.click(screen.getByRole('button', { name: 'The one after (j)' }));
  expect(go.mock.calls).toEqual([[1]]);
});

test('where too many are there to count, only the place is told', () => {
  const steps = { at: 41, of: undefined, to: () => undefined };
  render(<PanelHead submission={submission} run={undefined} steps={steps} close={() => {}} />);
  expect(screen.getByText('42')).toBeTruthy();
});
