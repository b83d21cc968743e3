import { expect, test } from '@jest/globals';
import { deviceOf } from '../source/device';
import { figuresBy, figuresOf, stopsOf, type FormTally } from './form-figures';
import { formFunnel } from './form-funnel';

const tally = (did: FormTally['did'], count: number, more: Partial<FormTally> = {}): FormTally => ({
  version: 1,
  page: '/',
  source: 'direct',
  device: 'desktop',
  did,
  item: '',
  count,
  seconds: 0,
  ...more,
});
const tallies = [
  tally('view', 60),
  tally('view', 40, { version: 2, device: 'phone' }),
  tally('start', 50),
  tally('stop', 7, { item: 'budget' }),
  tally('stop', 3, { item: 'budget', version: 2 }),
  tally('send', 20, { seconds: 1_200 }),
];

test('the figures of a form are whole, or of a part of its visitors', () => {
  expect(figuresOf(tallies)).toEqual({ views: 100, starts: 50, sends: 20, completion: 0.2, seconds: 60 });
  expect(figuresOf([])).toEqual({ views: 0, starts: 0, sends: 0, completion: null, seconds: null });
  expect(figuresBy(tallies, 'version').map(({ name, figures }) => [name, figures.views, figures.sends])).toEqual([
    ['1', 60, 20],
    ['2', 40, 0],
  ]);
  expect(stopsOf(tallies)).toEqual({ budget: 10 });
});

test('the steps of a form go from looking to won, with who left at each', () => {
  const items = [
    { name: 'email', type: 'email' as const, label: 'E-mail' },
    { name: 'budget', type: 'money' as const, label: 'Budget' },
    { name: 'campaign', type: 'hidden' as const, label: 'Campaign' },
    { name: 'message', type: 'long-text' as const, label: 'Message' },
  ];
  const told = (given: typeof tallies) =>
    formFunnel(given, { items }, { written: 18, won: 2 }).map(({ what, name, count, left }) => [
      name || what,
      count,
      left,
    ]);
  expect(told([...tallies, tally('stop', 4, { item: 'of an old version' })])).toEqual([
    ['view', 100, 50],
    ['start', 50, 0],
    ['email', 50, 0],
    ['budget', 50, 10],
    ['message', 40, 0],
    ['gone', 40, 4],
    ['send', 20, 0],
    ['written', 18, 0],
    ['won', 2, 0],
  ]);
  // More stops than starts were counted: a visitor began before the period.
  expect(told([tally('stop', 9, { item: 'email' })])).toContainEqual(['budget', 0, 0]);
  expect(told([tally('stop', 1, { item: 'constructor' })])).toContainEqual(['gone', 0, 1]);
});

test.each([
  ['Mozilla/5.0 (iPhone; CPU iPhone OS 17_0 like Mac OS X) Mobile/15E148 Safari', 'phone'],
  ['Mozilla/5.0 (Linux; Android 14; Pixel 8) Chrome/120 Mobile Safari', 'phone'],
  ['Mozilla/5.0 (Linux; Android 14; SM-X910) Chrome/120 Safari', 'tablet'],
  ['Mozilla/5.0 (iPad; CPU OS 17_0 like Mac OS X) Safari', 'tablet'],
  ['Mozilla/5.0 (X11; Linux x86_64) Chrome/120', 'desktop'],
  ['', 'desktop'],
])('%s is a %s', (agent, device) => expect(deviceOf(agent)).toBe(device));
