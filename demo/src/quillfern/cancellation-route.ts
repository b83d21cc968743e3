import type { RouteDefinition } from '@haycart/core';
import { answer, SOURCE, text } from '../values';

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
  followUps: [
    ...CANCEL_ROUTE_TELLING.followUps!,
    { do: 'mail', to: 'visitor', template: LEAVING_TEMPLATE.key, from: 'care-desk' },
  ],
};
