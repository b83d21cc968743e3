import { expect, test } from '@jest/globals';
import { deviceOf } from '../source/device';
import { figuresBy, figuresOf, stopsOf, type FormTally } from './form-figures';

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

test.each([
  ['Mozilla/5.0 (iPhone; CPU iPhone OS 17_0 like Mac OS X) Mobile/15E148 Safari', 'phone'],
  ['Mozilla/5.0 (Linux; Android 14; Pixel 8) Chrome/120 Mobile Safari', 'phone'],
  ['Mozilla/5.0 (Linux; Android 14; SM-X910) Chrome/120 Safari', 'tablet'],
  ['Mozilla/5.0 (iPad; CPU OS 17_0 like Mac OS X) Safari', 'tablet'],
  ['Mozilla/5.0 (X11; Linux x86_64) Chrome/120', 'desktop'],
  ['', 'desktop'],
])('%s is a %s', (agent, device) => expect(deviceOf(agent)).toBe(device));
