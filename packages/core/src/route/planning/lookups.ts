import { decidedOwner, namedOwner, type OwnerRule, type TeamOwner } from '../../assignment/choose-owner';
import { turnOf } from '../../assignment/counters';
import { countersOfTeam } from '../../assignment/from-team';
import { DEALS_FACT } from '../../decision/facts';
import { effectOf } from '../../effect/registry';
import { fieldOf, type Destination } from '../../destination/destination';
import type { FieldValues, RecordKind } from '../../diff/record';
import { identityKeysOf, identityKeyText, mailboxKeys, uniqueFieldsOf, type IdentityKey } from '../../identity/keys';
import { blocksOf } from '../../identity/likeness/blocks';
import { comparedForm } from '../../identity/likeness/compared';
import type { RouteDefinition, Write } from '../../definition/route-definition';
import { finisherContext, submissionReader } from './part-reader';
import { workOutFill } from './plan-fields';
import { soughtBy, type Sought } from './sought';
import type { Submission } from '../../payload/submission';

/** What must be looked up before a submission can be planned. */
export interface Lookups {
  /** The records that have one of these keys: to recognise them, and because a key belongs to one record only. */
  keys: IdentityKey[];
  /** Whether the deals of the contacts found are needed too. */
  deals: boolean;
  /** Under what records that may be alike are found, for rules by name and by likeness; see `blocksOf`. */
  blocks: Block[];
  /** The counters that it reads, such as whose turn it is in a team. */
  counters: string[];
}

/** The same with what is compared, for whoever has the records at hand. */
export interface ComparingLookups extends Lookups {
  sought: Sought[];
}

export interface Block {
  record: RecordKind;
  block: string;
}

/** The fields that give a record its identity keys. */
const IDENTIFYING: Record<Write['record'], readonly string[]> = {
  contact: ['email', 'external_ids'],
  company: ['domain', 'external_ids'],
  lead: ['email', 'external_ids'],
  deal: ['external_ids'],
};

/**
 * Everything that `planRun` will want to know about existing records. Only answers, the visit and fixed texts can take
 * part in recognising: a part that takes from an earlier write is blank here.
 */
export function lookupsFor(route: RouteDefinition, submission: Submission, destination: Destination): ComparingLookups {
  const read = submissionReader(submission, destination);
  const ground = { submission, read, finishing: finisherContext(submission, destination), destination };
  const uniques = uniqueFieldsOf(destination.fields);
  const keys: IdentityKey[] = [];
  const sought: Sought[] = [];
  const counters = new Set<string>();
  for (const followUp of route.followUps ?? []) {
    const named = effectOf(followUp)?.owner?.of(followUp);
    if (named) for (const turn of turnsFor(named.rule, route, ground)) counters.add(turn);
  }
  for (const write of route.writes) {
    if (write.owner) for (const turn of turnsFor(write.owner, route, ground)) counters.add(turn);
    const by = new Set(write.match?.map((rule) => rule.by));
    const compares = by.has('name') || by.has('likeness');
    const identifying = new Set([
      ...IDENTIFYING[write.record],
      ...(uniques[write.record] ?? []),
      ...(by.has('phone') ? ['phone'] : []),
    ]);
    const values: FieldValues = {};
    for (const fill of write.fills) {
      const field = (compares || identifying.has(fill.field)) && fieldOf(destination, write.record, fill.field);
      if (!field) continue;
      const { value } = workOutFill(write.record, fill, ground);
      if (value !== null) values[fill.field] = value;
    }
    const wanted = Object.fromEntries(Object.entries(values).filter(([field]) => identifying.has(field)));
    keys.push(...identityKeysOf(write.record, wanted, uniques), ...mailboxKeys(write.record, wanted));
    if (!compares) continue;
    const compared = comparedForm(write.record, values);
    sought.push(soughtBy(write, compared, blocksOf(compared)));
  }
  const blocks = sought.flatMap(({ record, blocks: own }) => own.map((block) => ({ record, block })));
  const deals = route.writes.some(({ record }) => record === 'deal') || asksForDeals(route);
  return { keys, deals, blocks, counters: [...counters], sought };
}

/** The counters that may decide an owner. Which row of a table fits is not known yet, so all that it names count. */
function turnsFor(
  rule: OwnerRule,
  route: RouteDefinition,
  { submission: { receivedAt }, destination }: { submission: Submission; destination: Destination },
): string[] {
  const decided = decidedOwner(rule);
  const named = namedOwner(rule);
  if (!decided) return named && 'team' in named ? countersOfTeam(named, destination, receivedAt) : [];
  const table = route.decisions?.find(({ name }) => name === decided.decision);
  const type = table?.outputs.find(({ name }) => name === decided.output)?.type;
  const said = [...(table?.rows ?? []).map(({ then }) => then), table?.otherwise ?? {}].map(
    (then) => then[decided.output],
  );
  return said.flatMap((one) => {
    if (type === 'team' && typeof one === 'string') return [turnOf(one)];
    const owner = (one ?? {}) as Partial<TeamOwner>;
    return typeof owner.team === 'string' ? countersOfTeam(owner as TeamOwner, destination, receivedAt) : [];
  });
}

function asksForDeals({ decisions = [] }: RouteDefinition): boolean {
  return decisions.some(({ inputs }) => inputs.some(({ of }) => 'write' in of && of.field === DEALS_FACT));
}

/** The same text for lookups that ask for the same. */
export function lookupsText({ keys, deals, blocks, counters }: Lookups): string {
  const names = [...keys.map(identityKeyText), ...blocks.map(({ record, block }) => `${record} ~ ${block}`)];
  return JSON.stringify([deals, ...new Set([...names, ...counters])].sort());
}
