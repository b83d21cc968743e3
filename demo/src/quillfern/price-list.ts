import type { RouteDefinition } from '@haycart/core';
import { answer, SOURCE } from '../values';
import { CONSENT_WORDS } from './forms';

export const PRICELIST_ROUTE: RouteDefinition = {
  format: 'haycart.route/1',
  name: 'Price list readers',
  from: ['pricelist'],
  writes: [
    {
      as: 'person',
      record: 'contact',
      match: [{ by: 'email' }],
      whenMatched: 'fill-blanks',
      fills: [
        { field: 'first_name', value: answer('first_name', 'trim', 'collapse', 'name-case') },
        { field: 'last_name', value: answer('last_name', 'trim', 'collapse', 'name-case') },
        { field: 'email', value: answer('email', 'email') },
        { field: 'may_write', value: answer('consent') },
        { field: 'source', value: SOURCE, overwrite: 'if-blank' },
      ],
    },
  ],
};

/** By what readers of the price list confirm their address since today. */
export const CONFIRM_TEMPLATE = {
  key: 'price-list-confirm',
  name: 'Confirm for the price list',
  subject: 'Your price list: one press is missing',
  text: `Hello {{ answers.first_name }},

press here, and the price list of this season is yours:
{{ confirm.link }}

If it was not you who asked, do nothing.

Quillfern Glasshouses
`,
  html: null,
};

/** By what they are sent it. */
export const PRICE_LIST_TEMPLATE = {
  key: 'price-list',
  name: 'The price list',
  subject: 'The glazing price list of this season',
  text: `Dear {{ contact.first_name }},

here it is. It holds until the end of the season; delivery and glazing are extra.

Quillfern Glasshouses
`,
  html: null,
};

/** The price list itself, as it stands among the files for mails. */
export const PRICE_LIST_FILE = {
  key: 'price-list',
  name: 'Glazing price list.pdf',
  title: 'Glazing price list',
  rows: [
    { label: 'Toughened, 4 mm', text: '£38 a square metre' },
    { label: 'Toughened, 6 mm', text: '£52 a square metre' },
    { label: 'Laminated, 6.4 mm', text: '£71 a square metre' },
    { label: 'Double, 24 mm', text: '£118 a square metre' },
    { label: 'Horticultural, 3 mm', text: '£24 a square metre' },
    { text: 'Prices without VAT, for ten square metres and more.' },
  ],
};

/** The price list since today: whoever lets us write confirms the address first, and then gets the newsletter. */
export const PRICELIST_ROUTE_CONFIRMING: RouteDefinition = {
  ...PRICELIST_ROUTE,
  holds: [
    {
      for: 'confirmation',
      template: CONFIRM_TEMPLATE.key,
      within: 'P7D',
      when: { of: { answer: 'consent' }, test: 'is', value: 'yes' },
    },
  ],
  followUps: [
    {
      do: 'mail',
      to: 'visitor',
      template: PRICE_LIST_TEMPLATE.key,
      attach: { files: [PRICE_LIST_FILE.key] },
    },
    {
      do: 'consent',
      on: 'person',
      channel: 'email',
      state: 'given',
      words: { parts: [{ text: CONSENT_WORDS }] },
      when: { of: { answer: 'consent' }, test: 'is', value: 'yes' },
    },
    {
      do: 'list',
      on: 'person',
      lists: ['spring-newsletter'],
      when: { of: { answer: 'consent' }, test: 'is', value: 'yes' },
    },
  ],
};
