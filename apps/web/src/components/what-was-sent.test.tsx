import { expect, test } from '@jest/globals';
import type { SubmissionDetail } from '@haycart/api';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { WhatWasSent } from './what-was-sent';

const show = (change: Partial<SubmissionDetail>) => {
  const submission = { id: 's', payload: {}, files: [], unreadable: null, raw: '', visit: {}, origin: {}, ...change };
  return render(<WhatWasSent submission={submission as unknown as SubmissionDetail} />);
};
const terms = () => screen.getAllByRole('term').map((term) => term.textContent);

test('answers stand with their questions or keys, blanks as such', () => {
  show({
    payload: { person: { last: '' }, answers: [{ question: 'How many bays?', answer: 4 }] },
    visit: { page: 'https://a.example/' },
    origin: { enteredBy: 'robin' },
  });
  expect(terms()).toEqual(['person.last', 'How many bays?', 'page', 'enteredBy']);
  expect(screen.getByText('blank')).toBeTruthy();
  expect(screen.getByText('2 answers')).toBeTruthy();
});

test('a file is a link under the question that it answers', () => {
  show({ payload: { sketch: 'f1' }, files: [{ id: 'f1', name: 'sketch.pdf', type: 'application/pdf', size: 2_048 }] });
  expect(screen.getByRole('link', { name: 'sketch.pdf' }).getAttribute('href')).toBe('/api/v1/submissions/s/files/f1');
  expect(screen.getByText('1 answer, 1 file')).toBeTruthy();
});

test('of very many answers the first are shown, and all when asked for', async () => {
  show({ payload: Object.fromEntries(Array.from({ length: 2_000 }, (_, n) => [`k${n}`, n])) });
  expect(terms()).toHaveLength(30);
  await userEvent.click(screen.getByRole('button', { name: 'Show all 2,000 answers' }));
  expect(terms()).toHaveLength(2_000);
});

test('what cannot be read is said, and shown as it came', () => {
  show({ payload: null, unreadable: 'It is no JSON.', raw: '{"a":' });
  expect(screen.getByText('It is no JSON.')).toBeTruthy();
  expect(screen.getByRole('group').hasAttribute('open')).toBe(true);
  expect(screen.getByText('{"a":')).toBeTruthy();
});
