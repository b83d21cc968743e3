import { fieldsOf, type Destination } from '../destination/destination';
import { sameValue, type FieldValue, type FieldValues, type Link } from '../diff/record';
import { changesBetween, emptyDiff, type RecordsDiff } from '../diff/records-diff';
import type { KnownRecord } from '../diff/known-record';
import {
  candidatesFor,
  ruleFor,
  surviving,
  type Candidate,
  type MergeRules,
  type OriginOf,
  type SurvivorshipRule,
} from '../identity/survivorship';

/** One field of the record that a merge makes. */
export interface MergedField {
  field: string;
  label: string;
  value: FieldValue | null;
  rule: SurvivorshipRule | 'chosen' | 'survivor';
  candidates: Candidate[];
}

/** What a merge would do, without doing it. */
export interface PlannedMerge {
  survivor: string;
  absorbed: string[];
  diff: RecordsDiff;
  fields: MergedField[];
}

export interface MergeWish {
  records: readonly KnownRecord[];
  /** All links of the records. */
  links: readonly Link[];
  rules: MergeRules;
  destination: Destination;
  originOf: OriginOf;
  /** The record that stays; the oldest when not said. */
  survivor?: string | undefined;
  /** Values that a person chose; `null` is blank. */
  chosen?: Readonly<Record<string, FieldValue | null>> | undefined;
  /** Lists that one of the records was on and left: none of them is on it afterwards. */
  left?: readonly string[] | undefined;
}

/** Where a deal or lead stands, and what is kept together with it, stays as the surviving record has it. */
const STAYS: ReadonlySet<string> = new Set([
  'pipeline',
  'stage',
  'status',
  'stage_since',
  'closed_at',
  'reason',
  'owner',
]);
/** Parts of one name come from one record, so that no new person is made of two. */
const NAME_PARTS = ['first_name', 'last_name', 'full_name'] as const;

/**
 * What making one record of several does: the surviving record’s fields after the rules of survivorship, the links of all,
 * and the others gone. The oldest survives when nothing else is said, since its number is the best known.
 */
export function planMerge(wish: MergeWish): PlannedMerge {
  const records = [...wish.records].sort((a, b) => compare(a.createdAt, b.createdAt) || compare(a.id, b.id));
  const kept = records.find(({ id }) => id === wish.survivor) ?? records[0]!;
  const absorbed = records.filter(({ id }) => id !== kept.id);
  const fields = mergedFields(kept, records, wish);
  const values: FieldValues = {};
  for (const { field, value } of fields) if (value !== null) values[field] = value;

  const diff = emptyDiff();
  const changes = changesBetween(kept.values, values);
  if (Object.keys(changes).length) diff.changed[kept.id] = { kind: kept.kind, fields: changes };
  for (const { id, kind, values: own } of absorbed) diff.removed[id] = { kind, values: own };
  Object.assign(diff, movedLinks(kept.id, absorbed, wish.links));
  return { survivor: kept.id, absorbed: absorbed.map(({ id }) => id), diff, fields };
}

function mergedFields(
  kept: KnownRecord,
  records: readonly KnownRecord[],
  { rules, destination, originOf, chosen = {}, left = [] }: MergeWish,
): MergedField[] {
  const named = namedBy(records, rules, originOf);
  const fields = fieldsOf(destination, kept.kind).map((definition): MergedField => {
    const { key: field, label } = definition;
    const candidates = candidatesFor(field, records, originOf);
    const own = kept.values[field];
    const outcome = (value: FieldValue | null, rule: MergedField['rule']): MergedField => ({
      field,
      label,
      value,
      rule,
      candidates,
    });
    if (field in chosen) return outcome(chosen[field]!, 'chosen');
    if (STAYS.has(field) && (own !== undefined || field !== 'owner')) return outcome(own ?? null, 'survivor');
    const rule = ruleFor(definition, rules);
    if (named && (NAME_PARTS as readonly string[]).includes(field)) return outcome(named.values[field] ?? null, rule);
    const value = surviving(rule, candidates, rules.trusted);
    if (field === 'lists' && Array.isArray(value)) {
      const stayed = value.filter((list) => !left.includes(list));
      return outcome(stayed.length ? stayed : null, rule);
    }
    return outcome(value, rule);
  });
  return firstOfAll(fields, kept.values);
}

/** The record whose whole name survives: by the rule for the family name, or the given name where nobody has another. */
function namedBy(records: readonly KnownRecord[], rules: MergeRules, originOf: OriginOf): KnownRecord | undefined {
  const field = (['last_name', 'first_name', 'full_name'] as const).find((part) =>
    records.some(({ values }) => values[part] !== undefined),
  );
  if (!field) return undefined;
  const value = surviving(
    ruleFor({ key: field, type: 'text' }, rules),
    candidatesFor(field, records, originOf),
    rules.trusted,
  );
  const having = records.filter(({ values }) => sameValue(values[field], value));
  return having.reduce((best, record) => (nameLength(record) > nameLength(best) ? record : best));
}

function nameLength({ values }: KnownRecord): number {
  return NAME_PARTS.reduce((sum, part) => sum + String(values[part] ?? '').length, 0);
}

/** The one e-mail, phone and domain stand first among all that are kept. */
function firstOfAll(fields: MergedField[], own: FieldValues): MergedField[] {
  const valueOf = (field: string) => fields.find((one) => one.field === field)?.value ?? null;
  return fields.map((merged) => {
    const one = { emails: 'email', phones: 'phone', domains: 'domain' }[merged.field];
    if (!one || merged.rule === 'chosen') return merged;
    const first = valueOf(one);
    const all = [...(typeof first === 'string' ? [first] : []), ...(Array.isArray(merged.value) ? merged.value : [])];
    const before = own[merged.field];
    const kept = Array.isArray(before) ? before : [];
    const ordered = [...new Set([...all.slice(0, typeof first === 'string' ? 1 : 0), ...kept, ...all])];
    return { ...merged, value: ordered.length ? ordered : null };
  });
}

/** Every link of the absorbed records, as one of the survivor; links between them are gone. */
function movedLinks(
  survivor: string,
  absorbed: readonly KnownRecord[],
  links: readonly Link[],
): Pick<RecordsDiff, 'linked' | 'unlinked'> {
  const gone = new Set(absorbed.map(({ id }) => id));
  const unlinked = links.filter(({ from, to }) => gone.has(from) || gone.has(to));
  const known = new Set(links.filter((link) => !unlinked.includes(link)).map(linkText));
  const linked: Link[] = [];
  for (const { from, to } of unlinked) {
    const link = { from: gone.has(from) ? survivor : from, to: gone.has(to) ? survivor : to };
    if (link.from === link.to || known.has(linkText(link))) continue;
    known.add(linkText(link));
    linked.push(link);
  }
  return { linked, unlinked };
}

function linkText({ from, to }: Link): string {
  return `${from} ${to}`;
}

function compare(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0;
}
