import { expect, test } from '@jest/globals';
import type { AccountStep } from '@haycart/core';
import { render, screen, within } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { RunAccount } from './run-account';

const show = (account: AccountStep[], isUndone = false) =>
  render(
    <MemoryRouter>
      <RunAccount account={account} receivedAt="2026-11-30T10:31:04.000Z" isUndone={isUndone} />
    </MemoryRouter>,
  ).container;
const states = (within: Element) =>
  [...within.querySelectorAll('[data-state]')].map((shape) => shape.getAttribute('data-state'));

const ARRIVED: AccountStep = { step: 'arrived', text: 'Arrived at Survey' };
const CHANGED: AccountStep = { step: 'changed', text: 'Changed 1 value', record: { kind: 'company', id: 'c1' } };

test('values stand under their step, which leads to its record', () => {
  show([ARRIVED, CHANGED, { step: 'value', text: 'Country', before: 'CA', after: 'NL' }]);
  const [, step] = screen.getAllByRole('listitem');
  expect(within(step!).getByRole('link').getAttribute('href')).toBe('/records/companies/c1');
  expect(within(step!).getByRole('term').textContent).toBe('Country');
  expect(within(step!).getByRole('definition').textContent).toContain('NL');
});

test('several steps in a row that changed nothing are one line to open; one, or one with values, is not', () => {
  const nothing = (text: string): AccountStep => ({ step: 'nothing', text });
  const kept: AccountStep[] = [
    { step: 'kept', text: 'Nothing changes on the contact' },
    { step: 'value', text: 'Source', before: 'show', after: 'show', note: 'kept' },
  ];
  show([ARRIVED, nothing('No company'), nothing('No lead'), CHANGED, nothing('No deal'), ...kept]);
  expect(screen.getAllByRole('listitem').map((line) => line.querySelector('summary')?.textContent ?? null)).toEqual([
    null,
    '2 steps that changed nothing',
    null,
    null,
    null,
  ]);
});

test('what was not done, or was taken back, is hollow', () => {
  expect(states(show([ARRIVED, CHANGED]))).toEqual(['skipped', 'written']);
  expect(states(show([ARRIVED, { ...CHANGED, undone: true }]))).toEqual(['skipped', 'skipped']);
  expect(states(show([ARRIVED, CHANGED], true))).toEqual(['skipped', 'skipped']);
});

test('a record that is not made yet leads nowhere', () => {
  show([ARRIVED, { ...CHANGED, record: { kind: 'contact', id: 'new:1' } }]);
  expect(screen.queryByRole('link')).toBeNull();
});
