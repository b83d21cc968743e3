import type { Destination } from '../../destination/destination';
import type { FieldValues } from '../../diff/record';
import type { IdentityKey } from '../../identity/keys';
import { blocksOf } from '../../identity/likeness/blocks';
import { compareCompanies, compareFirmNames } from '../../identity/likeness/compare-firms';
import { compareNames } from '../../identity/likeness/compare-names';
import { comparedForm, type ComparedRecord } from '../../identity/likeness/compared';
import { startingModel } from '../../identity/likeness/model';
import { likeness, type Likeness } from '../../identity/likeness/score';
import { isRoleMailbox, mailboxOf, USUAL_MAILBOX_READING } from '../../reading/mailbox';
import { counted } from '../../text';
import type { MatchRule, Write } from '../../definition/route-definition';
import type { KnownRecords } from '../../identity/known-records';
import type { KnownRecord } from '../../diff/known-record';
import type { FilledValue } from './plan-fields';

/** What recognising needs. */
export interface MatchGround {
  known: KnownRecords;
  destination: Destination;
  /** The companies that the record will be linked to. */
  companies: readonly { id: string; values: FieldValues }[];
  /** Which of the records found may be meant at all; all where not said. */
  among?: ((record: KnownRecord) => boolean) | undefined;
}

/** What came in for the record that is to be recognised; its compared form is worked out when a rule first asks for it. */
export interface Newcomer {
  values: FieldValues;
  readonly compared: ComparedRecord;
}

export interface Found {
  key: string | null;
  records: KnownRecord[];
  likeness: Map<string, Likeness>;
  notEnough: string[];
}

export function newcomerOf(write: Write, filled: readonly FilledValue[], { companies }: MatchGround): Newcomer {
  const values: FieldValues = {};
  for (const { fill, value } of filled) if (value !== null) values[fill.field] = value;
  let compared: ComparedRecord | undefined;
  return {
    values,
    get compared() {
      return (compared ??= comparedForm(write.record, values, { companies }));
    },
  };
}

/** The records that a rule finds; `null` where nothing came in that it could look for. */
export function candidatesOf(write: Write, rule: MatchRule, newcomer: Newcomer, ground: MatchGround): Found | null {
  const found =
    rule.by === 'likeness' ? byLikeness(write, rule, newcomer, ground) : byKey(write, rule.by, newcomer, ground);
  if (!found || !ground.among) return found;
  return { ...found, records: found.records.filter(ground.among) };
}

function byKey(
  write: Write,
  by: Exclude<MatchRule['by'], 'likeness'>,
  newcomer: Newcomer,
  ground: MatchGround,
): Found | null {
  const { record } = write;
  const { values } = newcomer;
  const text = (field: string) => (typeof values[field] === 'string' ? (values[field] as string) : null);
  const plain = (key: string | null, keys: readonly IdentityKey[]): Found => ({
    key,
    records: oldestFirst(keys.flatMap((one) => ground.known.withKey(one))),
    likeness: new Map(),
    notEnough: [],
  });
  switch (by) {
    case 'email': {
      const email = text('email');
      if (!email) return null;
      if (record === 'contact' && isRoleMailbox(email)) {
        const found = plain(email, [{ record, kind: 'shared-email', value: email }]);
        return usersFitting(found, newcomer, ground, `${email} is a mailbox that several people read`);
      }
      const reading = ground.destination.mailboxes ?? USUAL_MAILBOX_READING;
      const mailbox = mailboxOf(email, reading);
      const same = plain(email, [
        { record, kind: 'email', value: email },
        { record, kind: 'email', value: mailbox },
        { record, kind: 'mailbox', value: mailboxOf(email) },
      ]);
      const has = ({ values: own }: KnownRecord, wanted: (one: string) => boolean) =>
        [own.email, own.emails].flat().some((one) => typeof one === 'string' && wanted(one));
      const found = {
        ...same,
        records: same.records.filter((one) => has(one, (own) => mailboxOf(own, reading) === mailbox)),
      };
      const users = found.records.filter((one) => has(one, (own) => own === email));
      if (record !== 'contact' || users.length < 2) return found;
      return usersFitting(found, newcomer, ground, `${email} is used by several people`);
    }
    case 'phone': {
      const phone = text('phone');
      if (!phone) return null;
      const found = plain(phone, [{ record, kind: 'phone', value: phone }]);
      const alike = (other: ComparedRecord) => namesFit(newcomer.compared, other);
      return onlyFitting(found, alike, ground, `${phone} is a number that several people have`);
    }
    case 'domain': {
      const domain = text('domain');
      return domain ? plain(domain, [{ record, kind: 'domain', value: domain }]) : null;
    }
    case 'external-id': {
      const ids = Array.isArray(values.external_ids) ? values.external_ids : [];
      return ids.length
        ? plain(
            ids.join(', '),
            ids.map((value) => ({ record, kind: 'external-id', value })),
          )
        : null;
    }
    case 'name':
      return byName(write, newcomer, ground);
  }
}

/** By a key that several people may share: it is enough only with a name that does not speak against it. */
function onlyFitting(
  found: Found,
  fits: (other: ComparedRecord) => boolean,
  { known }: MatchGround,
  shared: string,
): Found {
  const fitting = found.records.filter((record) => fits(known.compared(record)));
  const others = found.records.length - fitting.length;
  return {
    ...found,
    records: fitting,
    notEnough: others
      ? [`${shared}: ${counted(others, 'record')} of another name ${others === 1 ? 'has' : 'have'} it`]
      : [],
  };
}

/** By a mailbox that several people use: those of the same name, or of none where none came. */
function usersFitting(found: Found, { compared }: Newcomer, ground: MatchGround, shared: string): Found {
  const named = compared.name !== null;
  const fits = (other: ComparedRecord) => (other.name !== null) === named && namesFit(compared, other);
  return onlyFitting(found, fits, ground, shared);
}

/** Whether names do not speak against each other. Two records without a name do not either. */
export function namesFit(one: ComparedRecord, other: ComparedRecord): boolean {
  const { given, family } = compareNames(one.name, other.name);
  return given.level !== 'far' && family.level !== 'far';
}

/** By the same name: of a person within the same company, of a company by itself. */
function byName(write: Write, { compared, values }: Newcomer, { known }: MatchGround): Found | null {
  const key = typeof values.name === 'string' ? values.name : nameText(values);
  if (!key) return null;
  const records = known.withBlock(write.record, blocksOf(compared)).filter((record) => {
    const other = known.compared(record);
    if (write.record === 'company') return compareFirmNames(compared.firmName, other.firmName).level === 'exact';
    const { given, family } = compareNames(compared.name, other.name);
    const named = given.level === 'exact' && family.level === 'exact';
    return named && compareCompanies(compared, other).level === 'exact';
  });
  return { key, records: oldestFirst(records), likeness: new Map(), notEnough: [] };
}

function nameText({ full_name: full, first_name: first, last_name: last }: FieldValues): string {
  return String(full ?? [first, last].filter(Boolean).join(' '));
}

function byLikeness(
  write: Write,
  { ask }: MatchRule & { by: 'likeness' },
  { compared }: Newcomer,
  { known, destination }: MatchGround,
): Found | null {
  const blocks = blocksOf(compared);
  if (!blocks.length) return null;
  const model = destination.likeness?.[write.record] ?? startingModel(write.record);
  const scored = known
    .withBlock(write.record, blocks)
    .map((record) => ({ record, like: likeness(model, compared, known.compared(record)) }))
    .filter(({ like }) => like.probability >= ask)
    .sort((a, b) => b.like.probability - a.like.probability || (a.record.id < b.record.id ? -1 : 1));
  return {
    key: null,
    records: scored.map(({ record }) => record),
    likeness: new Map(scored.map(({ record, like }) => [record.id, like])),
    notEnough: [],
  };
}

/** Records in the order in which they were made, each once. */
export function oldestFirst(records: readonly KnownRecord[]): KnownRecord[] {
  if (records.length < 2) return [...records];
  return [...new Set(records)].sort((a, b) => compare(a.createdAt, b.createdAt) || compare(a.id, b.id));
}

function compare(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0;
}
