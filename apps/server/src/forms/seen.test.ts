import { expect, test } from '@jest/globals';
import type { PublicForm } from './public-forms.service';
import { readSeen } from './seen';
import { readWish } from './route-wish';

const form = { form: { items: [{ name: 'email', type: 'email', label: 'E-mail' }] } } as unknown as PublicForm;

test.each<[unknown, object | null]>([
  [
    { did: 'start', from: 'utm_source=x' },
    { did: 'start', item: '', seconds: 0, from: 'utm_source=x' },
  ],
  ['{"did":"send","seconds":41.6}', { did: 'send', item: '', seconds: 42, from: '' }],
  [
    { did: 'send', seconds: 1e9 },
    { did: 'send', item: '', seconds: 7_200, from: '' },
  ],
  [
    { did: 'stop', item: 'email', seconds: 9 },
    { did: 'stop', item: 'email', seconds: 0, from: '' },
  ],
  [
    { did: 'start', item: 'email' },
    { did: 'start', item: '', seconds: 0, from: '' },
  ],
  [{ did: 'stop', item: 'nothing of ours' }, null],
  [{ did: 'stop' }, null],
  [{ did: 'view' }, null],
  [{ did: 'send', seconds: -1 }, null],
  [{ did: 'start', from: 'x'.repeat(4_001) }, null],
  ['{"did"', null],
  [null, null],
  [[], null],
])('a page that tells %j is heard as %j', (told, heard) => expect(readSeen(told, form)).toEqual(heard));

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
