import type { DecisionTable, RouteDefinition } from '@haycart/core';
import { answer, SOURCE } from '../values';

/** Who sends a school its papers. */
const WHO_SENDS_PAPERS: DecisionTable = {
  name: 'Who sends the papers',
  inputs: [
    { of: { answer: 'garden_now' }, label: 'Garden now', as: 'yes-no' },
    { of: { answer: 'garden_size' }, label: 'Size' },
  ],
  outputs: [{ name: 'Owner', type: 'owner' }],
  rows: [
    { when: [{ test: 'yes' }, { test: 'is', value: 'field' }], then: { Owner: { person: 'idris-vale' } } },
    { when: [{ test: 'yes' }, null], then: { Owner: { person: 'morag-sel', standIn: 'idris-vale' } } },
  ],
  otherwise: { Owner: { person: 'morag-sel', standIn: 'robin-nye' } },
};

/** A school that asks for a grant is written once somebody who knows the trust has read it. */
export const GRANT_ROUTE: RouteDefinition = {
  format: 'haycart.route/1',
  name: 'School garden grant',
  from: ['grant'],
  decisions: [WHO_SENDS_PAPERS],
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
      owner: { decision: WHO_SENDS_PAPERS.name, output: 'Owner' },
      due: { in: 5, unit: 'days', working: true },
    },
  ],
};

/** The same, and she is asked by mail since today. */
export const GRANT_ROUTE_BY_MAIL: RouteDefinition = {
  ...GRANT_ROUTE,
  holds: [{ for: 'approval', by: { person: 'morag-sel' }, byMail: true }],
};
