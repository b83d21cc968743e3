import type { RouteDefinition } from '@haycart/core';
import { answer, SOURCE, text } from '../values';

export const SURVEY_ROUTE: RouteDefinition = {
  format: 'haycart.route/1',
  name: 'Site survey request',
  from: ['survey'],
  writes: [
    {
      as: 'firm',
      record: 'company',
      match: [{ by: 'domain' }],
      whenMatched: 'fill-blanks',
      fills: [
        { field: 'name', value: answer('organisation', 'trim', 'collapse') },
        { field: 'domain', value: answer('email', 'company-domain') },
        { field: 'source', value: SOURCE, overwrite: 'if-blank' },
      ],
    },
    {
      as: 'person',
      record: 'contact',
      match: [{ by: 'email' }],
      whenMatched: 'update',
      links: ['firm'],
      fills: [
        { field: 'first_name', value: answer('first_name', 'trim', 'collapse', 'name-case') },
        { field: 'last_name', value: answer('last_name', 'trim', 'collapse', 'name-case') },
        { field: 'email', value: answer('email', 'email') },
        {
          field: 'phone',
          value: { parts: [{ answer: 'phone' }], finishers: [{ use: 'phone', with: { country: 'GB' } }] },
        },
        { field: 'growing_for', value: answer('growing_for', 'trim') },
        { field: 'may_write', value: answer('consent') },
        { field: 'source', value: SOURCE, overwrite: 'if-blank' },
      ],
    },
    {
      as: 'sale',
      record: 'deal',
      links: ['person', 'firm'],
      place: { pipeline: text('new-builds'), stage: text('enquiry'), again: 'update' },
      fills: [
        {
          field: 'name',
          value: {
            parts: [
              { write: 'firm', field: 'name' },
              { write: 'person', field: 'full_name' },
            ],
            joinWith: ', ',
          },
          overwrite: 'if-blank',
        },
        { field: 'value', value: answer('budget', 'trim') },
        { field: 'bays', value: answer('bays', 'trim') },
        { field: 'message', value: answer('message', 'whole-text') },
        { field: 'source', value: SOURCE, overwrite: 'if-blank' },
      ],
    },
  ],
};

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

export const DEALERS_ROUTE: RouteDefinition = {
  format: 'haycart.route/1',
  name: 'Dealer application',
  from: ['dealers'],
  writes: [
    {
      as: 'firm',
      record: 'company',
      match: [{ by: 'domain' }],
      whenMatched: 'update',
      fills: [
        { field: 'name', value: answer('business.name', 'trim', 'collapse') },
        { field: 'domain', value: answer('business.website', 'company-domain') },
        { field: 'website', value: answer('business.website', 'trim') },
        { field: 'country', value: answer('business.country', 'trim') },
        { field: 'glass_area', value: answer('business.glass_m2') },
        { field: 'source', value: SOURCE, overwrite: 'if-blank' },
      ],
    },
    {
      as: 'person',
      record: 'contact',
      match: [{ by: 'email' }],
      whenMatched: 'update',
      links: ['firm'],
      fills: [
        { field: 'first_name', value: answer('person.name.first', 'trim', 'name-case') },
        { field: 'last_name', value: answer('person.name.last', 'trim', 'name-case') },
        { field: 'email', value: answer('person.email', 'email') },
        {
          field: 'phone',
          value: {
            parts: [{ answer: 'person.phones[0]' }],
            finishers: [{ use: 'phone', with: { country: 'NL', countryFrom: 'business.country' } }],
          },
        },
        { field: 'job_title', value: answer('person.role', 'trim'), overwrite: 'if-blank' },
        { field: 'source', value: SOURCE, overwrite: 'if-blank' },
      ],
    },
    {
      as: 'application',
      record: 'deal',
      links: ['person', 'firm'],
      place: { pipeline: text('dealers'), stage: text('applied'), again: 'new-if-closed' },
      fills: [
        { field: 'name', value: { parts: [{ text: 'Dealership' }, { write: 'firm', field: 'name' }] } },
        { field: 'message', value: answer('plans.message', 'whole-text') },
        { field: 'source', value: SOURCE },
      ],
    },
  ],
};

/** The dealers’ route since the warehouse wants to know of each: it gets the records, and the larger ones are marked. */
export function dealersRoutePosting(port: number): RouteDefinition {
  return {
    ...DEALERS_ROUTE,
    followUps: [
      {
        do: 'tag',
        on: 'application',
        add: [text('key-account')],
        when: { of: { answer: 'business.glass_m2' }, test: 'at-least', value: 1_000 },
      },
      { do: 'post', to: `http://warehouse.quillfern.example:${port}/dealers` },
    ],
  };
}

export const CALLS_ROUTE: RouteDefinition = {
  format: 'haycart.route/1',
  name: 'Partner calls',
  from: ['calls'],
  writes: [
    {
      as: 'lead',
      record: 'lead',
      place: { pipeline: text('first-calls'), stage: text('new'), again: 'update' },
      owner: { enteredBy: true, otherwise: { team: 'dealer-desk' } },
      fills: [
        { field: 'name', value: answer('caller', 'trim', 'collapse') },
        { field: 'email', value: answer('email', 'email') },
        {
          field: 'phone',
          value: { parts: [{ answer: 'phone' }], finishers: [{ use: 'phone', with: { country: 'GB' } }] },
        },
        { field: 'company_name', value: answer('organisation', 'trim') },
        { field: 'bays', value: answer('bays') },
        { field: 'message', value: answer('said', 'whole-text') },
        { field: 'source', value: text('partner call'), overwrite: 'if-blank' },
      ],
    },
  ],
};

/** Whoever leaves a care plan is rung by somebody of the care desk, who hears of it at once. */
export const CANCEL_ROUTE: RouteDefinition = {
  format: 'haycart.route/1',
  name: 'Care plan cancellation',
  from: ['cancel'],
  writes: [
    {
      as: 'person',
      record: 'contact',
      match: [{ by: 'email' }],
      whenMatched: 'fill-blanks',
      owner: { team: 'care-desk' },
      fills: [
        { field: 'first_name', value: answer('first_name', 'trim', 'collapse', 'name-case') },
        { field: 'last_name', value: answer('last_name', 'trim', 'collapse', 'name-case') },
        { field: 'email', value: answer('email', 'email') },
        { field: 'source', value: SOURCE, overwrite: 'if-blank' },
      ],
    },
    {
      as: 'plan',
      record: 'deal',
      links: ['person'],
      owner: { team: 'care-desk' },
      place: { pipeline: text('care-plans'), stage: text('renewal-due'), again: 'update' },
      fills: [
        { field: 'name', value: { parts: [{ text: 'Care plan' }, { answer: 'plan' }] }, overwrite: 'if-blank' },
        { field: 'message', value: answer('what_went_wrong', 'whole-text') },
        { field: 'source', value: SOURCE, overwrite: 'if-blank' },
      ],
    },
  ],
  followUps: [
    {
      do: 'task',
      on: 'plan',
      title: { parts: [{ text: 'Ring about leaving' }, { answer: 'plan' }] },
      body: answer('what_went_wrong'),
      due: { in: 2, unit: 'hours', working: true },
      priority: 'high',
    },
    { do: 'note', on: 'plan', title: text('What went wrong'), body: answer('what_went_wrong') },
  ],
};

/** The same since the desk has a channel of its own. */
export const CANCEL_ROUTE_TELLING: RouteDefinition = {
  ...CANCEL_ROUTE,
  followUps: [
    ...CANCEL_ROUTE.followUps!,
    {
      do: 'message',
      to: { channel: 'care-desk' },
      by: 'chat',
      body: {
        parts: [{ write: 'person', field: 'full_name' }, { text: 'leaves' }, { answer: 'plan' }],
      },
      link: 'plan',
    },
  ],
};

/** By what whoever leaves is written since today. */
export const LEAVING_TEMPLATE = {
  key: 'leaving',
  name: 'We have your cancellation',
  subject: 'Your care plan {{ answers.plan }} ends',
  text: `Dear {{ contact.first_name }},

your care plan {{ answers.plan }} ends with this month.{% if answers.why == "price" %} Before it does, we would like to ring you about the price.{% endif %}

Thank you for the years.

Quillfern Glasshouses
`,
  html: null,
};

/** The same, and the visitor is written to. */
export const CANCEL_ROUTE_WRITING: RouteDefinition = {
  ...CANCEL_ROUTE_TELLING,
  followUps: [...CANCEL_ROUTE_TELLING.followUps!, { do: 'mail', to: 'visitor', template: LEAVING_TEMPLATE.key }],
};

/** A school that asks for a grant is written once somebody who knows the trust has read it. */
export const GRANT_ROUTE: RouteDefinition = {
  format: 'haycart.route/1',
  name: 'School garden grant',
  from: ['grant'],
  writes: [
    {
      as: 'school',
      record: 'company',
      match: [{ by: 'domain' }],
      whenMatched: 'fill-blanks',
      fills: [
        { field: 'name', value: answer('school', 'trim', 'collapse') },
        { field: 'domain', value: answer('email', 'company-domain') },
        { field: 'source', value: SOURCE, overwrite: 'if-blank' },
      ],
    },
    {
      as: 'person',
      record: 'contact',
      match: [{ by: 'email' }],
      whenMatched: 'fill-blanks',
      links: ['school'],
      fills: [
        { field: 'first_name', value: answer('first_name', 'trim', 'collapse', 'name-case') },
        { field: 'last_name', value: answer('last_name', 'trim', 'collapse', 'name-case') },
        { field: 'email', value: answer('email', 'email') },
        { field: 'job_title', value: answer('role', 'trim'), overwrite: 'if-blank' },
        { field: 'may_write', value: answer('consent') },
        { field: 'source', value: SOURCE, overwrite: 'if-blank' },
      ],
    },
  ],
  holds: [{ for: 'approval', by: { person: 'morag-sel' } }],
  followUps: [
    {
      do: 'task',
      on: 'person',
      title: { parts: [{ text: 'Send the grant papers to' }, { answer: 'school' }] },
      owner: { person: 'morag-sel' },
      due: { in: 5, unit: 'days', working: true },
    },
  ],
};

/** The same, and she is asked by mail since today. */
export const GRANT_ROUTE_BY_MAIL: RouteDefinition = {
  ...GRANT_ROUTE,
  holds: [{ for: 'approval', by: { person: 'morag-sel' }, byMail: true }],
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
      do: 'list',
      on: 'person',
      lists: ['spring-newsletter'],
      when: { of: { answer: 'consent' }, test: 'is', value: 'yes' },
    },
  ],
};

/** Surveys since today: whoever leads the builders hears of a large one on the phone. */
export const SURVEY_ROUTE_TELLING: RouteDefinition = {
  ...SURVEY_ROUTE,
  followUps: [
    {
      do: 'message',
      to: { person: { person: 'robin-nye' } },
      by: 'text',
      body: {
        parts: [{ text: 'A survey of' }, { answer: 'budget' }, { text: 'for' }, { write: 'firm', field: 'name' }],
      },
      link: 'sale',
      when: { of: { answer: 'budget' }, test: 'at-least', value: 250_000 },
    },
  ],
};
