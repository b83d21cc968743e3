import { intakeKind } from '../intake/registry';
import type { Destination } from '../destination/destination';
import { defaultStageOf } from '../destination/edit-pipeline';
import type { RecordKind } from '../diff/record';
import type { SeenField } from './answer-names';
import { FEEDING, usualRules } from '../route/checking/recognition';
import { USUAL_THRESHOLDS } from '../identity/likeness/thresholds';
import { suggestFills } from './suggest';
import { NAME_FINISHERS } from './suggested-finishers';
import type { Fill, MatchRule, RouteDefinition, Write } from '../definition/route-definition';
import type { Value } from '../value/value';

/** What a route may begin as, by its purpose. */
export const ROUTE_OUTLINES = [
  {
    key: 'enquiry',
    title: 'Enquiry to deal',
    what: 'A contact and their company, found or made, and a deal in the pipeline.',
  },
  {
    key: 'people',
    title: 'People of a file',
    what: 'Contacts and their companies, known again by address, number and likeness; blanks are filled, nothing is overwritten.',
  },
  { key: 'booking', title: 'Booking to lead', what: 'A lead that somebody looks at and qualifies.' },
  {
    key: 'update',
    title: 'Update of a known customer',
    what: 'A contact who is known already is brought up to date; strangers are left out.',
  },
  {
    key: 'cancellation',
    title: 'Cancellation to the care team',
    what: 'A lead for the team that looks after customers; contacts stay as they are.',
  },
] as const;
export type RouteOutline = (typeof ROUTE_OUTLINES)[number]['key'];

/** From how much on a suggestion is taken into a first draft. */
const SURE = 0.55;

const text = (words: string): Value => ({ parts: [{ text: words }] });
const SOURCE: Fill = { field: 'source', value: { parts: [{ visit: 'source' }] }, overwrite: 'if-blank' };

/** The outline that fits what an intake brings, and how a workspace handles enquiries. */
export function usualOutline({ leadHandling }: Pick<Destination, 'leadHandling'>, kind?: string): RouteOutline {
  if (kind !== undefined && intakeKind(kind).brings === 'people') return 'people';
  return leadHandling === 'leads' ? 'booking' : 'enquiry';
}

/**
 * A first draft of a route for an intake. What the intake has sent so far is fed where there is little doubt; the rest is
 * for a person.
 */
export function routeFromOutline(
  outline: RouteOutline,
  { name, intake, seen }: { name: string; intake: string; seen: readonly SeenField[] },
  destination: Destination,
): RouteDefinition {
  const route = (writes: Write[]): RouteDefinition => ({ format: 'haycart.route/1', name, from: [intake], writes });
  const usual = (record: RecordKind) => (seen.length ? [] : usualFills(record));
  const fills = (record: RecordKind) => [...sureFills(record, seen, destination), ...usual(record)];
  switch (outline) {
    case 'enquiry': {
      const firm = companyWrite(fills('company'));
      const person = { ...contactWrite(fills('contact')), ...(firm ? { links: ['firm'] } : {}) };
      const deal = dealWrite(fills('deal'), firm ? ['person', 'firm'] : ['person'], destination);
      return route([...(firm ? [firm] : []), person, ...(deal ? [deal] : [])]);
    }
    case 'people': {
      const contact = fills('contact');
      const firm = firmOfPerson(fills('company'), contact);
      return route([...(firm ? [firm] : []), { ...personOfFile(contact), ...(firm ? { links: ['firm'] } : {}) }]);
    }
    case 'booking':
      return route([leadWrite(fills('lead'), fills('contact'), destination, !seen.length)]);
    case 'update':
      return route([{ ...contactWrite(fills('contact')), whenNone: 'skip' }]);
    case 'cancellation': {
      const team = Object.keys(destination.teams ?? {}).find((key) => /care|support|service|success/.test(key));
      return route([
        {
          ...leadWrite(fills('lead'), fills('contact'), destination, !seen.length),
          ...(team ? { owner: { team } } : {}),
        },
      ]);
    }
  }
}

function sureFills(record: RecordKind, seen: readonly SeenField[], destination: Destination): Fill[] {
  const empty: RouteDefinition = {
    format: 'haycart.route/1',
    name: '',
    from: [],
    writes: [{ as: record, record, fills: [] }],
  };
  const sure = suggestFills(empty, seen, destination).filter(({ certainty }) => certainty >= SURE);
  return inOrder(
    sure.map(({ fill }) => fill),
    record,
    destination,
  );
}

/** In the order of the record’s fields. */
function inOrder(fills: readonly Fill[], record: RecordKind, { fields }: Destination): Fill[] {
  const order = fields.filter((field) => field.record === record).map(({ key }) => key);
  return fills.toSorted((a, b) => order.indexOf(a.field) - order.indexOf(b.field));
}

/**
 * The route with a contact or company written too: fed with what is sure, recognised as its kind usually is, and linked.
 * What feeds another record already feeds a company only where it is its own.
 */
export function addedWrite(
  record: 'contact' | 'company',
  route: RouteDefinition,
  seen: readonly SeenField[],
  destination: Destination,
): RouteDefinition {
  const as = record === 'contact' ? 'person' : 'firm';
  const person = route.writes.find((write) => write.record === 'contact');
  const empty: Write = { as, record, fills: [] };
  const sure = suggestFills({ ...route, writes: [empty, ...route.writes] }, seen, destination).filter(
    (suggestion) => suggestion.as === as && suggestion.certainty >= SURE,
  );
  const fills = inOrder(
    sure.map(({ fill }) => fill),
    record,
    destination,
  );
  const own = record === 'company' ? [...fills, ...domainOf(person?.fills ?? [], fills)] : fills;
  const write: Write = {
    ...empty,
    match: usualRules(
      record,
      own.map(({ field }) => field),
    ),
    whenMatched: record === 'company' ? 'fill-blanks' : 'update',
    fills: [...own, SOURCE],
  };
  const links = (other: Write) => other.record === 'deal' || (record === 'company' && other.record === 'contact');
  return {
    ...route,
    writes: [
      write,
      ...route.writes.map((other) => (links(other) ? { ...other, links: [...(other.links ?? []), as] } : other)),
    ],
  };
}

/** Before anything came, what a record is recognised by is fed from the answer of its usual name. */
function usualFills(record: RecordKind): Fill[] {
  if (record !== 'contact' && record !== 'lead') return [];
  return [{ field: 'email', value: { parts: [{ answer: 'email' }], finishers: [{ use: 'email' }] } }];
}

function contactWrite(fills: readonly Fill[]): Write {
  return {
    as: 'person',
    record: 'contact',
    match: usualRules(
      'contact',
      fills.map(({ field }) => field),
    ),
    whenMatched: 'update',
    fills: [...fills, SOURCE],
  };
}

/** The company, where one is named. */
function companyWrite(fills: readonly Fill[]): Write | null {
  const name = fills.find(({ field }) => field === 'name')?.value.parts[0];
  if (!name) return null;
  const byDomain = fills.some(({ field }) => field === 'domain');
  return {
    as: 'firm',
    record: 'company',
    when: { of: name, test: 'filled' },
    match: byDomain ? [{ by: 'domain' }, { by: 'name' }] : [{ by: 'name' }],
    whenMatched: 'fill-blanks',
    fills: [...fills, SOURCE],
  };
}

/** Somebody who stands in a file: recognised by whatever of it tells who it is. */
function personOfFile(fills: readonly Fill[]): Write {
  const rules: [fed: string, MatchRule][] = [
    ['external_ids', { by: 'external-id' }],
    ['email', { by: 'email', askIf: ['other-surname'] }],
    ['phone', { by: 'phone' }],
  ];
  const keys = rules.filter(([fed]) => fills.some(({ field }) => field === fed)).map(([, rule]) => rule);
  return {
    as: 'person',
    record: 'contact',
    match: fills.some(({ field }) => FEEDING.likeness.contact!.includes(field))
      ? [...keys, { by: 'likeness', ...USUAL_THRESHOLDS }]
      : keys,
    whenMatched: 'fill-blanks',
    fills: [...fills, SOURCE],
  };
}

/** The company of somebody who stands in a file: the number beside the name is the person’s, the domain that of the address. */
function firmOfPerson(company: readonly Fill[], contact: readonly Fill[]): Write | null {
  const own = company.filter(({ field }) => field !== 'phone');
  return companyWrite([...own, ...domainOf(contact, own)]);
}

/** The domain of a company from the address of its person, where nothing else tells it. */
function domainOf(contact: readonly Fill[], company: readonly Fill[]): Fill[] {
  const address = contact.find(({ field }) => field === 'email');
  if (!address || company.some(({ field }) => field === 'domain')) return [];
  return [{ field: 'domain', value: { parts: address.value.parts, finishers: [{ use: 'company-domain' }] } }];
}

function dealWrite(fills: readonly Fill[], links: string[], { pipelines }: Destination): Write | null {
  const pipeline = pipelines.find(({ record }) => record === 'deal');
  const stage = pipeline && defaultStageOf(pipeline);
  if (!pipeline || !stage) return null;
  const parts = [
    { write: 'person', field: 'full_name' },
    { write: 'person', field: 'email' },
  ];
  return {
    as: 'sale',
    record: 'deal',
    links,
    place: { pipeline: text(pipeline.key), stage: text(stage.key), again: 'update' },
    fills: [{ field: 'name', value: { parts, joinWith: ', ' }, overwrite: 'if-blank' }, ...fills, SOURCE],
  };
}

function leadWrite(
  fills: readonly Fill[],
  contact: readonly Fill[],
  { pipelines }: Destination,
  cameNothing: boolean,
): Write {
  const pipeline = pipelines.find(({ record }) => record === 'lead');
  const stage = pipeline && defaultStageOf(pipeline);
  // A lead has one name: where the answers have two, they are joined.
  const parts = contact
    .filter(({ field }) => field === 'first_name' || field === 'last_name')
    .flatMap(({ value }) => value.parts)
    .filter(
      (part, index, all) =>
        all.findIndex((other) => 'answer' in other && 'answer' in part && other.answer === part.answer) === index,
    );
  const named = parts.length < 2 && fills.some(({ field }) => field === 'name');
  const address = fills.find(({ field }) => field === 'email')?.value.parts ?? [];
  const name: Fill = parts.length
    ? { field: 'name', value: { parts, finishers: [...NAME_FINISHERS] } }
    : { field: 'name', value: { parts: cameNothing ? [{ answer: 'name' }] : address } };
  return {
    as: 'enquiry',
    record: 'lead',
    ...(pipeline && stage
      ? { place: { pipeline: text(pipeline.key), stage: text(stage.key), again: 'update' as const } }
      : {}),
    fills: [...(named ? [] : [name]), ...fills.filter(({ field }) => named || field !== 'name'), SOURCE],
  };
}
