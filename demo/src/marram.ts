import type { FormDefinition, Pipeline, RouteDefinition } from '@haycart/core';
import { answer, SOURCE, text } from './values';

/** Marram Boat Sheds: the second, small workspace, which shows that workspaces are closed to each other. */
export const MARRAM = {
  pipeline: {
    key: 'sheds',
    name: 'Boat sheds',
    record: 'deal',
    stages: [
      { key: 'asked', name: 'Asked', state: 'open' },
      { key: 'visited', name: 'Visited', state: 'open' },
      { key: 'offered', name: 'Offered', state: 'open' },
      { key: 'won', name: 'Won', state: 'won' },
      { key: 'lost', name: 'Lost', state: 'lost' },
    ],
  } satisfies Pipeline,
  form: {
    format: 'haycart.form/1',
    title: 'A shed for your boat',
    language: 'en-GB',
    button: 'Ask us',
    after: { do: 'thank', title: 'Thank you', text: 'We answer within a day, tides permitting.' },
    items: [
      { name: 'name', type: 'text', label: 'Your name', required: true },
      { name: 'email', type: 'email', label: 'E-mail', required: true },
      { name: 'boat', type: 'text', label: 'Which boat?' },
    ],
  } satisfies FormDefinition,
  route: {
    format: 'haycart.route/1',
    name: 'Shed enquiry',
    from: ['sheds'],
    writes: [
      {
        as: 'person',
        record: 'contact',
        match: [{ by: 'email' }],
        fills: [
          { field: 'full_name', value: answer('name', 'trim', 'name-case') },
          { field: 'email', value: answer('email', 'email') },
          { field: 'source', value: SOURCE, overwrite: 'if-blank' },
        ],
      },
      {
        as: 'shed',
        record: 'deal',
        links: ['person'],
        place: { pipeline: text('sheds'), stage: text('asked'), again: 'update' },
        fills: [
          {
            field: 'name',
            value: { parts: [{ text: 'Shed for' }, { answer: 'boat' }], finishers: [{ use: 'collapse' }] },
          },
          { field: 'source', value: SOURCE },
        ],
      },
    ],
  } satisfies RouteDefinition,
};
