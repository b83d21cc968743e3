import type { Destination } from '../destination/destination';
import { defaultStageOf } from '../destination/edit-pipeline';
import type { RecordKind } from '../diff/record';
import type { SeenField } from '../mapping/answer-names';
import { USUAL_THRESHOLDS } from '../identity/likeness/thresholds';
import { suggestFills } from '../mapping/suggest';
import type { Fill, MatchRule, RouteDefinition, Value, Write } from './definition';

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
  if (kind === 'sheet') return 'people';
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
  const fills = (record: RecordKind) => sureFills(record, seen, destination);
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
      return route([leadWrite(fills('lead'), fills('contact'), destination)]);
    case 'update':
      return route([{ ...contactWrite(fills('contact')), whenNone: 'skip' }]);
    case 'cancellation': {
      const team = Object.keys(destination.teams ?? {}).find((key) => /care|support|service|success/.test(key));
      return route([
        { ...leadWrite(fills('lead'), fills('contact'), destination), ...(team ? { owner: { team } } : {}) },
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
  const order = destination.fields.filter((field) => field.record === record).map(({ key }) => key);
  return suggestFills(empty, seen, destination)
    .filter(({ certainty }) => certainty >= SURE)
    .map(({ fill }) => fill)
    .sort((a, b) => order.indexOf(a.field) - order.indexOf(b.field));
}

/** What a record is recognised by must be fed; before anything came, by the usual name. */
function recognisable(fills: readonly Fill[], key: string): Fill[] {
  if (fills.some(({ field }) => field === key)) return [...fills];
  return [...fills, { field: key, value: { parts: [{ answer: key }], finishers: [{ use: key }] } }];
}

function contactWrite(fills: readonly Fill[]): Write {
  return {
    as: 'person',
    record: 'contact',
    match: [{ by: 'email' }],
    whenMatched: 'update',
    fills: [...recognisable(fills, 'email'), SOURCE],
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
  if (!rules.some(([fed]) => fills.some(({ field }) => field === fed)))
    return personOfFile(recognisable(fills, 'email'));
  const keys = rules.filter(([fed]) => fills.some(({ field }) => field === fed)).map(([, rule]) => rule);
  return {
    as: 'person',
    record: 'contact',
    match: [...keys, { by: 'likeness', ...USUAL_THRESHOLDS }],
    whenMatched: 'fill-blanks',
    fills: [...fills, SOURCE],
  };
}

/** The company of somebody who stands in a file: the number beside the name is the person’s, the domain that of the address. */
function firmOfPerson(company: readonly Fill[], contact: readonly Fill[]): Write | null {
  const own = company.filter(({ field }) => field !== 'phone');
  const address = contact.find(({ field }) => field === 'email');
  const domain: Fill[] =
    address && !own.some(({ field }) => field === 'domain')
      ? [{ field: 'domain', value: { parts: address.value.parts, finishers: [{ use: 'company-domain' }] } }]
      : [];
  return companyWrite([...own, ...domain]);
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

function leadWrite(fills: readonly Fill[], contact: readonly Fill[], { pipelines }: Destination): Write {
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
  const name: Fill = { field: 'name', value: { parts: parts.length ? parts : [{ answer: 'name' }] } };
  return {
    as: 'enquiry',
    record: 'lead',
    ...(pipeline && stage
      ? { place: { pipeline: text(pipeline.key), stage: text(stage.key), again: 'update' as const } }
      : {}),
    fills: [
      ...(named ? [] : [name]),
      ...recognisable(
        fills.filter(({ field }) => named || field !== 'name'),
        'email',
      ),
      SOURCE,
    ],
  };
}
