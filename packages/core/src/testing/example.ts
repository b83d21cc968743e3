import type { Destination } from '../destination/destination';
import { BUILT_IN_FIELDS } from '../field/built-in-fields';
import type { SeenField } from '../mapping/answer-names';
import type { Fill, RouteDefinition, Write } from '../definition/route-definition';
import type { Value } from '../value/value';
import { KnownRecords } from '../identity/known-records';
import type { KnownRecord } from '../diff/known-record';
import { lookupsFor } from '../route/planning/lookups';
import type { Plan } from '../route/planning/plan';
import { planRun } from '../route/planning/plan-run';
import type { Submission } from '../payload/submission';

/** A destination and a route that tests begin with. */
export const destination: Destination = {
  defaultCountry: 'GB',
  defaultCurrency: 'GBP',
  fields: [
    ...BUILT_IN_FIELDS.map((field) =>
      field.record === 'contact' && field.key === 'email' ? { ...field, required: true } : field,
    ),
    {
      record: 'contact',
      key: 'growing_for',
      label: 'Growing for',
      type: 'one-of',
      builtIn: false,
      required: false,
      options: [{ key: 'school', label: 'Teaching garden', aliases: ['school garden'] }],
    },
    { record: 'deal', key: 'bays', label: 'Bays', type: 'whole-number', builtIn: false, required: false },
  ],
  pipelines: [
    {
      key: 'new-builds',
      name: 'New builds',
      record: 'deal',
      stages: [
        { key: 'enquiry', name: 'Enquiry', state: 'open' },
        { key: 'design', name: 'Design', state: 'open' },
        { key: 'won', name: 'Won', state: 'won' },
      ],
    },
  ],
};

export const text = (words: string): Value => ({ parts: [{ text: words }] });
export const answer = (key: string, ...uses: string[]): Value => ({
  parts: [{ answer: key }],
  finishers: uses.map((use) => ({ use })),
});
export const fill = (field: string, value: Value, more: Partial<Fill> = {}): Fill => ({ field, value, ...more });

export const firm: Write = {
  as: 'firm',
  record: 'company',
  match: [{ by: 'domain' }],
  whenMatched: 'fill-blanks',
  fills: [
    fill('name', answer('company', 'trim')),
    fill('domain', answer('email', 'company-domain')),
    fill('source', { parts: [{ visit: 'source' }] }),
  ],
};
export const person: Write = {
  as: 'person',
  record: 'contact',
  match: [{ by: 'email' }],
  links: ['firm'],
  fills: [
    fill('first_name', answer('first', 'trim', 'name-case')),
    fill('last_name', answer('last', 'trim', 'name-case')),
    fill('email', answer('email', 'email')),
    fill('phone', answer('phone', 'phone')),
    fill('growing_for', answer('growing')),
    fill('source', { parts: [{ visit: 'source' }] }, { overwrite: 'if-blank' }),
  ],
};
export const sale: Write = {
  as: 'sale',
  record: 'deal',
  links: ['person', 'firm'],
  place: { pipeline: text('new-builds'), stage: text('enquiry'), again: 'update' },
  fills: [
    fill(
      'name',
      {
        parts: [
          { write: 'firm', field: 'name' },
          { write: 'person', field: 'full_name' },
        ],
        joinWith: ', ',
      },
      { overwrite: 'if-blank' },
    ),
    fill('bays', answer('bays')),
    fill('source', { parts: [{ visit: 'source' }] }, { overwrite: 'if-blank' }),
  ],
};

export function routeOf(...writes: Write[]): RouteDefinition {
  return { format: 'haycart.route/1', name: 'Site survey', from: ['survey'], writes };
}

export const route = routeOf(firm, person, sale);

let made = 0;

export function submission(payload: Submission['payload'], more: Partial<Submission> = {}): Submission {
  made += 1;
  return {
    id: `submission-${made}`,
    intake: 'survey',
    receivedAt: '2026-03-14T09:30:00.000Z',
    payload,
    visit: { utm_source: 'spring-newsletter', utm_medium: 'email' },
    ...more,
  };
}

export const maren = {
  first: 'MAREN',
  last: 'oduya',
  email: 'M.Oduya@Fennwick.example',
  phone: '07700 900 318',
  company: ' Fennwick Academy ',
  bays: 6,
};

export function known(
  ...records: (Partial<KnownRecord> & Pick<KnownRecord, 'id' | 'kind' | 'values'>)[]
): KnownRecords {
  return new KnownRecords(
    records.map((record) => ({ createdAt: '2026-01-01T00:00:00.000Z', writtenAt: {}, ...record })),
  );
}

/** Plans as the server does: only what `lookupsFor` asks for is known. */
export function plan(
  definition: RouteDefinition,
  from: Submission,
  records: KnownRecords = known(),
  where: Destination = destination,
): Plan {
  lookupsFor(definition, from, where);
  const newIds = Object.fromEntries(definition.writes.map(({ as }) => [as, `${as} of ${from.id}`]));
  return planRun(definition, from, records, { destination: where, newIds });
}

/** A field that an intake received, which holds what its name says. */
export function seenField(key: string): SeenField {
  const last = key.split('.').at(-1)!;
  const kind = /mail/i.test(last) ? 'email' : /phone|tel/.test(last) ? 'phone' : 'text';
  return { key, label: key, kind, filled: 1, values: [], dateOrder: null };
}
