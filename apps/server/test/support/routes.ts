import type { RouteDefinition, Value } from '@haycart/core';

/** What was answered to a question, finished. */
export const answer = (key: string, ...uses: string[]): Value => ({
  parts: [{ answer: key }],
  ...(uses.length ? { finishers: uses.map((use) => ({ use })) } : {}),
});
const source = { field: 'source', value: { parts: [{ visit: 'source' }] }, overwrite: 'if-blank' as const };

/** Contact by e-mail, company by domain, deal in the pipeline. */
export function routeFrom(...from: string[]): RouteDefinition {
  return {
    format: 'haycart.route/1',
    name: 'Enquiries',
    from,
    writes: [
      {
        as: 'firm',
        record: 'company',
        match: [{ by: 'domain' }],
        whenMatched: 'fill-blanks',
        fills: [
          { field: 'name', value: answer('company', 'trim') },
          { field: 'domain', value: answer('email', 'company-domain') },
          source,
        ],
      },
      {
        as: 'person',
        record: 'contact',
        match: [{ by: 'email' }],
        links: ['firm'],
        fills: [
          { field: 'full_name', value: answer('name', 'trim', 'name-case') },
          { field: 'email', value: answer('email', 'email') },
          { field: 'phone', value: answer('phone', 'phone') },
          source,
        ],
      },
      {
        as: 'sale',
        record: 'deal',
        links: ['person', 'firm'],
        place: {
          pipeline: { parts: [{ text: 'new-builds' }] },
          stage: { parts: [{ text: 'enquiry' }] },
          again: 'update',
        },
        fills: [
          { field: 'name', value: { parts: [{ text: 'Glass for' }, { write: 'person', field: 'full_name' }] } },
          { field: 'bays', value: answer('bays') },
          source,
        ],
      },
    ],
  };
}

/** A contact alone, recognised by e-mail, with what else a route says. */
export function contactRoute(from: string, more: Partial<RouteDefinition> = {}): RouteDefinition {
  return {
    format: 'haycart.route/1',
    name: 'Enquiries',
    from: [from],
    writes: [
      {
        as: 'person',
        record: 'contact',
        match: [{ by: 'email' }],
        fills: [
          { field: 'email', value: answer('email') },
          { field: 'last_name', value: answer('name') },
        ],
      },
    ],
    ...more,
  };
}
