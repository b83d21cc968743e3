import type { Destination } from '../destination/destination';
import { defaultStageOf } from '../destination/edit-pipeline';
import type { Fill, RouteDefinition, Value } from './definition';

const text = (words: string): Value => ({ parts: [{ text: words }] });
const answer = (key: string, ...uses: string[]): Value => ({
  parts: [{ answer: key }],
  finishers: uses.map((use) => ({ use })),
});
const SOURCE: Fill = { field: 'source', value: { parts: [{ visit: 'source' }] }, overwrite: 'if-blank' };

/** Which answers feed which field of a contact at the start, by the usual names of form fields. */
const USUAL: [field: string, pattern: RegExp, finishers: string[]][] = [
  ['first_name', /(^|[._])(first|given|fore)[_ ]?name$|(^|\.)first$/i, ['trim', 'name-case']],
  ['last_name', /(^|[._])(last|family|sur)[_ ]?name$|(^|\.)last$/i, ['trim', 'name-case']],
  ['full_name', /(^|[._])(full[_ ]?)?name$/i, ['trim', 'collapse', 'name-case']],
  ['email', /e-?mail/i, ['email']],
  ['phone', /phone|(^|[._])(tel|mobile)/i, ['phone']],
  ['job_title', /job|role|position/i, ['trim']],
];

/**
 * A first draft of a route for an intake: a contact recognised by e-mail, and a deal in the first pipeline; or a lead,
 * where a workspace lets somebody qualify enquiries first. What the
 * intake has sent so far is fed where its name leaves no doubt; the rest is for a person.
 */
export function starterRoute(
  name: string,
  intake: string,
  fieldKeys: readonly string[],
  destination: Destination,
): RouteDefinition {
  const taken = new Set<string>();
  const fills = USUAL.flatMap(([field, pattern, finishers]): Fill[] => {
    const key = fieldKeys.find((candidate) => pattern.test(candidate) && !taken.has(candidate));
    if (key === undefined) return [];
    taken.add(key);
    return [{ field, value: answer(key, ...finishers) }];
  });
  const email: Fill[] = fills.some(({ field }) => field === 'email')
    ? []
    : [{ field: 'email', value: answer('email', 'email') }];
  if (destination.leadHandling === 'leads') return leadRoute(name, intake, [...fills, ...email], destination);
  const pipeline = destination.pipelines.find(({ record }) => record === 'deal');
  const stage = pipeline && defaultStageOf(pipeline);
  const route: RouteDefinition = {
    format: 'haycart.route/1',
    name,
    from: [intake],
    writes: [
      {
        as: 'person',
        record: 'contact',
        match: [{ by: 'email' }],
        whenMatched: 'update',
        fills: [...fills, ...email, SOURCE],
      },
    ],
  };
  if (pipeline && stage) {
    route.writes.push({
      as: 'sale',
      record: 'deal',
      links: ['person'],
      place: { pipeline: text(pipeline.key), stage: text(stage.key), again: 'update' },
      fills: [
        {
          field: 'name',
          value: {
            parts: [
              { write: 'person', field: 'full_name' },
              { write: 'person', field: 'email' },
            ],
            joinWith: ', ',
          },
          overwrite: 'if-blank',
        },
        SOURCE,
      ],
    });
  }
  return route;
}

/** What of a contact a lead has too, under its own names. */
const LEAD_FIELDS: Record<string, string> = { full_name: 'name', email: 'email', phone: 'phone' };

function leadRoute(name: string, intake: string, fills: readonly Fill[], { pipelines }: Destination): RouteDefinition {
  const pipeline = pipelines.find(({ record }) => record === 'lead');
  const stage = pipeline && defaultStageOf(pipeline);
  const own = fills.flatMap((fill): Fill[] => {
    const field = LEAD_FIELDS[fill.field];
    return field ? [{ ...fill, field }] : [];
  });
  const names = fills.filter(({ field }) => field === 'first_name' || field === 'last_name');
  const named: Fill[] = own.some(({ field }) => field === 'name')
    ? []
    : [
        {
          field: 'name',
          value: { parts: names.length ? names.flatMap(({ value }) => value.parts) : [{ answer: 'name' }] },
        },
      ];
  return {
    format: 'haycart.route/1',
    name,
    from: [intake],
    writes: [
      {
        as: 'enquiry',
        record: 'lead',
        ...(pipeline && stage
          ? { place: { pipeline: text(pipeline.key), stage: text(stage.key), again: 'update' as const } }
          : {}),
        fills: [...named, ...own, SOURCE],
      },
    ],
  };
}
