import type { Destination } from '../destination/destination';
import { fieldOf } from '../destination/destination';
import type { FieldDefinition } from '../field/field-definition';
import type { RecordKind } from '../diff/record';
import type { OwnerRule } from '../assignment/choose-owner';
import type { Fill, FollowUp, Place, RouteDefinition, Write } from '../definition/route-definition';
import type { Value } from '../value/value';
import { NAME_FINISHERS } from '../mapping/suggested-finishers';
import { usualRules } from '../route/checking/recognition';
import { questionsOf, type FormDefinition, type Question } from './definition';

/** What is asked once when a form is published: where its deals or leads begin, whose they are, how people are marked. */
export interface FormRouteWish {
  /** Where a deal, or a lead, begins; absent: the form makes neither. */
  place?: { record: 'deal' | 'lead'; pipeline: string; stage: string; again: Place['again'] };
  /** What a deal is worth when the form does not ask, such as `GBP 500`. */
  value?: string;
  owner?: OwnerRule;
  tags?: string[];
  lists?: string[];
}

const text = (words: string): Value => ({ parts: [{ text: words }] });
const SOURCE: Fill = { field: 'source', value: { parts: [{ visit: 'source' }] }, overwrite: 'if-blank' };
const AS: Record<RecordKind, string> = { company: 'firm', contact: 'person', lead: 'enquiry', deal: 'sale' };

/** The route that follows from a form made of record fields: each question feeds the field that it asks for. */
export function routeFromForm(
  intake: { key: string; name: string },
  form: FormDefinition,
  destination: Destination,
  wish: FormRouteWish,
): RouteDefinition {
  const asked = (record: RecordKind) => questionsOf(form).filter(({ feeds }) => feeds?.record === record);
  const fills = (record: RecordKind) => asked(record).map((question) => fillFor(question, destination));
  const email = [...asked('contact'), ...asked('lead')].find(({ feeds }) => feeds!.field === 'email');
  const writes: Write[] = [];
  if (asked('company').length) writes.push(companyWrite(fills('company'), email));
  if (asked('contact').length)
    writes.push({
      as: AS.contact,
      record: 'contact',
      match: usualRules(
        'contact',
        asked('contact').map(({ feeds }) => feeds!.field),
      ),
      whenMatched: 'update',
      ...linksTo(writes),
      fills: [...fills('contact'), SOURCE],
    });
  if (asked('lead').length || wish.place?.record === 'lead')
    writes.push(placed('lead', leadFills(fills('lead'), fills('contact'), intake.name, destination), writes, wish));
  if (asked('deal').length || wish.place?.record === 'deal')
    writes.push(placed('deal', dealFills(fills('deal'), writes, wish), writes, wish));
  return {
    format: 'haycart.route/1',
    name: intake.name,
    from: [intake.key],
    writes,
    ...followUps(writes, wish),
  };
}

function companyWrite(fills: Fill[], email: Question | undefined): Write {
  const byMail: Fill[] =
    email && !fills.some(({ field }) => field === 'domain')
      ? [{ field: 'domain', value: { parts: [{ answer: email.name }], finishers: [{ use: 'company-domain' }] } }]
      : [];
  const named = [...fills, ...byMail];
  const site = named.find(({ field }) => field === 'domain' || field === 'website');
  // A company must have a name; one that nobody was asked for is what it is called on the web.
  const byName: Fill[] =
    fills.some(({ field }) => field === 'name') || !site
      ? []
      : [
          {
            field: 'name',
            value: { parts: site.value.parts, finishers: site.value.finishers ?? [{ use: 'domain' }] },
            overwrite: 'if-blank',
          },
        ];
  const all = [...byName, ...named];
  return {
    as: AS.company,
    record: 'company',
    match: usualRules(
      'company',
      all.map(({ field }) => field),
    ),
    whenMatched: 'fill-blanks',
    fills: [...all, SOURCE],
  };
}

function placed(record: 'deal' | 'lead', fills: Fill[], earlier: readonly Write[], wish: FormRouteWish): Write {
  const { place, owner } = wish;
  return {
    as: AS[record],
    record,
    ...linksTo(earlier),
    ...(place?.record === record
      ? { place: { pipeline: text(place.pipeline), stage: text(place.stage), again: place.again } }
      : {}),
    ...(owner ? { owner } : {}),
    fills,
  };
}

function dealFills(asked: Fill[], writes: readonly Write[], { value }: FormRouteWish): Fill[] {
  const has = (field: string) => asked.some((fill) => fill.field === field);
  const names = writes.flatMap(({ as, record }) =>
    record === 'company'
      ? [{ write: as, field: 'name' }]
      : record === 'contact'
        ? [{ write: as, field: 'full_name' }]
        : [],
  );
  return [
    ...(has('name') || !names.length
      ? []
      : [{ field: 'name', value: { parts: names, joinWith: ', ' }, overwrite: 'if-blank' as const }]),
    ...(value && !has('value') ? [{ field: 'value', value: text(value), overwrite: 'if-blank' as const }] : []),
    ...asked.map((fill) => (value && fill.field === 'value' ? withFallback(fill, value) : fill)),
    SOURCE,
  ];
}

/** What a lead has of its own, and what the contact was asked for that a lead has too. Its name is the person’s, or else the form’s. */
function leadFills(asked: readonly Fill[], contact: readonly Fill[], form: string, { fields }: Destination): Fill[] {
  const has = (field: string) => asked.some((fill) => fill.field === field);
  const shared = contact.filter(
    ({ field }) => !has(field) && fields.some(({ record, key }) => record === 'lead' && key === field),
  );
  const names = contact
    .filter(({ field }) => /^(full|first|last)_name$/.test(field))
    .flatMap(({ value }) => value.parts);
  const address = [...asked, ...contact].find(({ field }) => field === 'email')?.value.parts ?? [];
  const name: Fill = names.length
    ? { field: 'name', value: { parts: names, finishers: [...NAME_FINISHERS] } }
    : { field: 'name', value: address.length ? { parts: address } : text(form) };
  return [...(has('name') ? [] : [name]), ...asked, ...shared, SOURCE];
}

function linksTo(earlier: readonly Write[]): { links?: string[] } {
  return earlier.length ? { links: earlier.map(({ as }) => as) } : {};
}

function followUps(writes: readonly Write[], { tags = [], lists = [] }: FormRouteWish): { followUps?: FollowUp[] } {
  const person = writes.find(({ record }) => record === 'contact');
  const tagged = person ?? writes[0];
  const wanted: FollowUp[] = [
    ...(tags.length && tagged ? [{ do: 'tag' as const, on: tagged.as, tags }] : []),
    ...(lists.length && person ? [{ do: 'list' as const, on: person.as, lists }] : []),
  ];
  return wanted.length ? { followUps: wanted } : {};
}

/** Where the question stays blank, what was given beforehand holds. */
function withFallback({ value, ...fill }: Fill, otherwise: string): Fill {
  return {
    ...fill,
    value: { ...value, finishers: [...(value.finishers ?? []), { use: 'default', with: { text: otherwise } }] },
  };
}

/** How a question feeds its field: the usual repairs for the field's type. */
function fillFor({ name, feeds, country }: Question, destination: Destination): Fill {
  const field = fieldOf(destination, feeds!.record, feeds!.field);
  const uses = field ? finishersFor(field, country ?? destination.defaultCountry) : [];
  return {
    field: feeds!.field,
    value: { parts: [{ answer: name }], ...(uses.length ? { finishers: uses } : {}) },
  };
}

function finishersFor({ key, type, builtIn }: FieldDefinition, country: string): NonNullable<Value['finishers']> {
  if (builtIn && /^(first|last|full)_name$/.test(key)) return [...NAME_FINISHERS];
  switch (type) {
    case 'email':
      return [{ use: 'email' }];
    case 'phone':
      return [{ use: 'phone', with: { country } }];
    case 'long-text':
      return [{ use: 'whole-text' }];
    case 'text':
      return [{ use: 'trim' }, { use: 'collapse' }];
    default:
      return [];
  }
}

/** Questions that ask for a field which a route writes to but does not feed from them: each can be added as it is. */
export function offeredFills(
  form: FormDefinition,
  route: RouteDefinition,
  destination: Destination,
): { question: Question; write: string; fill: Fill }[] {
  return questionsOf(form).flatMap((question) => {
    const { feeds } = question;
    const write = feeds && route.writes.find(({ record }) => record === feeds.record);
    if (!write || write.fills.some(({ field }) => field === feeds.field)) return [];
    return [{ question, write: write.as, fill: fillFor(question, destination) }];
  });
}
