import { expect, test } from '@jest/globals';
import type { PublicForm } from './public-forms.service';
import { readSeen, sentBy } from './seen';
import { readWish } from './route-wish';

const form = { form: { items: [{ name: 'email', type: 'email', label: 'E-mail' }] } } as unknown as PublicForm;

test.each<[unknown, object | null]>([
  [
    { did: 'start', from: 'utm_source=x' },
    { did: 'start', item: '', from: 'utm_source=x' },
  ],
  ['{"did":"stop","item":"email"}', { did: 'stop', item: 'email', from: '' }],
  [
    { did: 'start', item: 'email' },
    { did: 'start', item: '', from: '' },
  ],
  [{ did: 'stop', item: 'nothing of ours' }, null],
  [{ did: 'stop' }, null],
  [{ did: 'view' }, null],
  [{ did: 'send' }, null],
  [{ did: 'start', from: 'x'.repeat(4_001) }, null],
  ['{"did"', null],
  [null, null],
  [[], null],
])('a page that tells %j is heard as %j', (told, heard) => expect(readSeen(told, form)).toEqual(heard));

test.each([
  [String(Date.now() - 42_000), 42],
  [String(Date.now() + 60_000), 0],
  ['0', 0],
  ['soon', 0],
])('a page opened at %s was open for %i seconds', (opened, seconds) => {
  expect(sentBy({ _opened: opened }, {})).toEqual({ did: 'send', seconds, visit: {} });
});

test('where a form’s enquiries go is read as it is written, or refused', () => {
  const wish = {
    place: { record: 'deal', pipeline: 'new-builds', stage: 'enquiry', again: 'update' },
    value: 'GBP 500',
    owner: { team: 'builds-north' },
    tags: ['press'],
    lists: ['news'],
  };
  expect(readWish(wish)).toEqual(wish);
  expect(readWish({})).toEqual({});
  for (const wrong of [
    { colour: 'red' },
    { place: { ...wish.place, again: 'sometimes' } },
    { place: { ...wish.place, record: 'contact' } },
    { owner: { person: 'ida', team: 'north' } },
    { owner: {} },
    { tags: 'press' },
    7,
  ])
    expect(() => readWish(wrong)).toThrow(/route cannot be made/);
});
