import type { Destination } from '../destination/destination';
import { showFieldValue } from '../field/field-value';
import { companyDomain } from '../reading/domain';
import type { FieldValue, FieldValues, RecordKind } from '../diff/record';
import { changesBetween, isEmptyDiff, type RecordsDiff } from '../diff/records-diff';
import type { JsonObject } from '../json';
import type { Fill, RouteDefinition, Write } from '../definition/route-definition';
import type { Value } from '../value/value';
import type { KnownRecords } from '../identity/known-records';
import type { KnownRecord } from '../diff/known-record';
import type { Plan } from '../route/planning/plan';
import { LEAD_STATUS } from '../route/planning/plan-place';
import { planRun } from '../route/planning/plan-run';
import type { Submission } from '../payload/submission';

/** Where the deal of a qualified lead is to stand, and what it is called. */
export interface Qualifying {
  pipeline: string;
  stage: string;
  /** The name of the deal; the lead's own where not said. */
  dealName?: string;
  /** ISO 8601. */
  at: string;
  /** Ids for the records that are made: by `person`, `firm` and `sale`. */
  newIds: Record<string, string>;
}

const text = (words: string): Value => ({ parts: [{ text: words }] });
const answer = (key: string, ...uses: string[]): Value => ({
  parts: [{ answer: key }],
  finishers: uses.map((use) => ({ use })),
});

/**
 * A lead as a submission and a route that turns it into company, contact and deal, so that whoever is known already is
 * recognised by the rules that routes go by. Fields of the same key are carried over to where they fit.
 */
export function qualifyingRoute(
  lead: KnownRecord,
  { pipeline, stage, dealName }: Pick<Qualifying, 'pipeline' | 'stage' | 'dealName'>,
  destination: Destination,
): { route: RouteDefinition; submission: Submission } {
  const { name, email, phone, company_name: company, message, source } = lead.values;
  const words = String(name ?? '')
    .trim()
    .split(/\s+/);
  const payload: JsonObject = {
    first_name: words.slice(0, -1).join(' '),
    last_name: words.at(-1) ?? '',
    full_name: String(name ?? ''),
    email: String(email ?? ''),
    phone: String(phone ?? ''),
    company: String(company ?? ''),
    message: String(message ?? ''),
    source: String(source ?? ''),
    deal: dealName ?? ([company, name].filter(Boolean).join(', ') || 'Enquiry'),
  };
  const origin: Fill = { field: 'source', value: answer('source'), overwrite: 'if-blank' };
  const keep = (field: string, value: Value): Fill => ({ field, value, overwrite: 'if-blank' });
  const firm: Write = {
    as: 'firm',
    record: 'company',
    match: [{ by: 'domain' }],
    whenMatched: 'fill-blanks',
    fills: [keep('name', answer('company', 'trim')), keep('domain', answer('email', 'company-domain')), origin],
  };
  const person: Write = {
    as: 'person',
    record: 'contact',
    match: [{ by: 'email' }],
    whenMatched: 'fill-blanks',
    links: ['firm'],
    fills: [
      keep('first_name', answer('first_name')),
      keep('last_name', answer('last_name')),
      keep('full_name', answer('full_name')),
      keep('email', answer('email', 'email')),
      keep('phone', answer('phone')),
      ...carried(lead, 'contact', destination, payload),
      origin,
    ],
  };
  const sale: Write = {
    as: 'sale',
    record: 'deal',
    links: ['person', 'firm'],
    place: { pipeline: text(pipeline), stage: text(stage), again: 'new' },
    fills: [
      keep('name', answer('deal')),
      keep('message', answer('message')),
      ...carried(lead, 'deal', destination, payload),
      origin,
    ],
  };
  return {
    route: {
      format: 'haycart.route/1',
      name: 'Qualify a lead',
      from: ['lead'],
      writes:
        company || companyDomainOf(email)
          ? [firm, person, sale]
          : [
              { ...person, links: [] },
              { ...sale, links: ['person'] },
            ],
    },
    submission: { id: lead.id, intake: 'lead', receivedAt: lead.createdAt, payload, visit: {} },
  };
}

/** What qualifying a lead does: the plan for its records, and the diff of all of it with the lead itself. */
export interface QualifyPlan {
  plan: Plan;
  diff: RecordsDiff;
}

/** Plans the qualifying of a lead, without doing any of it. The deal points back to the lead, and gets its owner and tags. */
export function planQualify(
  lead: KnownRecord,
  qualifying: Qualifying,
  known: KnownRecords,
  destination: Destination,
): QualifyPlan {
  const { route, submission } = qualifyingRoute(lead, qualifying, destination);
  const { newIds, at } = qualifying;
  const plan = planRun(route, { ...submission, receivedAt: at }, known, { destination, newIds });
  if (plan.outcome !== 'write' || isEmptyDiff(plan.diff)) return { plan, diff: plan.diff };
  const deal = newIds.sale!;
  const { owner, tags } = lead.values;
  const sale = plan.diff.created[deal]!;
  const inherited: FieldValues = { ...sale.values, ...(owner ? { owner } : {}), ...(tags ? { tags } : {}) };
  const after = closedLead(lead, 'won', at, destination);
  return {
    plan,
    diff: {
      ...plan.diff,
      created: { ...plan.diff.created, [deal]: { ...sale, values: inherited } },
      changed: { ...plan.diff.changed, [lead.id]: { kind: 'lead', fields: changesBetween(lead.values, after) } },
      linked: [
        ...plan.diff.linked,
        { from: deal, to: lead.id },
        ...plan.writes.flatMap(({ record, id }) => (record === 'contact' && id ? [{ from: lead.id, to: id }] : [])),
      ],
    },
  };
}

/** A lead's values once it is qualified (`won`) or set aside (`lost`): in its pipeline's stage for that, if it has one. */
export function closedLead(
  lead: Pick<KnownRecord, 'values'>,
  state: 'won' | 'lost',
  at: string,
  destination: Destination,
  reason?: string,
): FieldValues {
  const pipeline = destination.pipelines.find(({ key }) => key === lead.values.pipeline);
  const stage = pipeline?.stages.find((one) => one.state === state);
  return {
    ...lead.values,
    status: LEAD_STATUS[state],
    ...(stage ? { stage: stage.key, stage_since: at } : {}),
    ...(reason === undefined ? {} : { reason }),
  };
}

/** The lead's own fields that another kind has too, of the same key and type. */
function carried(lead: KnownRecord, kind: RecordKind, { fields }: Destination, payload: JsonObject): Fill[] {
  return fields.flatMap((field): Fill[] => {
    const own = fields.find(({ record, key, builtIn }) => record === 'lead' && key === field.key && !builtIn);
    const value = lead.values[field.key];
    if (field.record !== kind || field.builtIn || own?.type !== field.type || value === undefined) return [];
    const key = `lead_${field.key}`;
    payload[key] = showFieldValue({ ...own, options: [] }, value);
    return [{ field: field.key, value: answer(key), overwrite: 'if-blank' }];
  });
}

function companyDomainOf(email: FieldValue | undefined): string | null {
  return typeof email === 'string' ? companyDomain(email) : null;
}
