import type { RouteDefinition } from '@haycart/core';
import { answer, SOURCE, text } from '../values';
import { WHO_TAKES_A_DEALER, WHO_TAKES_A_DEALER_DRAFT } from './dealer-table';
import { WHO_BUILDS } from './survey-table';

const decided = (output: string) => ({ parts: [{ decision: WHO_TAKES_A_DEALER.name, output }] });

export const SURVEY_ROUTE: RouteDefinition = {
  format: 'haycart.route/1',
  name: 'Site survey request',
  from: ['survey'],
  decisions: [WHO_BUILDS],
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
      owner: { decision: WHO_BUILDS.name, output: 'Owner' },
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

export const DEALERS_ROUTE: RouteDefinition = {
  format: 'haycart.route/1',
  name: 'Dealer application',
  from: ['dealers'],
  decisions: [WHO_TAKES_A_DEALER],
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
      place: { pipeline: text('dealers'), stage: decided('Stage'), again: 'new-if-closed' },
      owner: { decision: WHO_TAKES_A_DEALER.name, output: 'Owner' },
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

/** What somebody is changing of the dealers’ route, not published yet. */
export function dealersRouteDraft(port: number): RouteDefinition {
  return { ...dealersRoutePosting(port), decisions: [WHO_TAKES_A_DEALER_DRAFT] };
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
