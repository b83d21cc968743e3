import {
  blocksOf,
  COMPARED_VALUES,
  comparedForm,
  LARGEST_BLOCK,
  pairsAround,
  worthKnowing,
  type Block,
  type ComparedRecord,
  type Destination,
  type FieldValues,
  type FoundPair,
  type LikenessModel,
  type RecordKind,
  type Sought,
} from '@haycart/core';
import type { WorkspaceTx } from '../../platform/database/database';
import { fieldColumns } from '../record-rows';

/** The records that may be meant, by kind. */
export type Candidates = Map<RecordKind, Set<string>>;

/** The records that share a block with what is looked for: those that may be alike. Too large a block tells nothing. */
export async function candidates(tx: WorkspaceTx, blocks: readonly Block[]): Promise<Candidates> {
  const found: Candidates = new Map();
  for (const { kind, ids } of await underBlocks(tx, blocks)) addTo(found, kind, ids);
  return found;
}

/** Of those candidates the ones that a rule may take or ask about: the others are compared here, and need not be loaded. */
export async function likelyCandidates(
  tx: WorkspaceTx,
  sought: readonly Sought[],
  likeness: Destination['likeness'],
): Promise<Candidates> {
  const blocks = sought.flatMap(({ record, blocks: own }) => own.map((block) => ({ record, block })));
  const rows = await underBlocks(tx, blocks);
  const under = new Map(rows.map(({ kind, block, ids }) => [`${kind} ${block}`, ids]));
  const all: Candidates = new Map();
  for (const { kind, ids } of rows) addTo(all, kind, ids);
  const found = {
    under: (kind: RecordKind, block: string) => under.get(`${kind} ${block}`) ?? [],
    compared: await comparedRecords(tx, all),
  };
  const worth = worthKnowing(sought, found, likeness);
  return new Map([...all].map(([kind, ids]) => [kind, new Set([...ids].filter((id) => worth.has(id)))]));
}

/** Records of a kind, and from what probability on pairs with others are looked for. */
export interface LookedAround {
  kind: RecordKind;
  ids: readonly string[];
  model: LikenessModel;
  ask: number;
}

/** The pairs of some records with all that may be the same. A lead that was settled and one that came later are two, even of one person. */
export async function foundAround(tx: WorkspaceTx, { kind, ids, model, ask }: LookedAround): Promise<FoundPair[]> {
  const open = (some: readonly string[]) => (kind === 'lead' ? openLeads(tx, some) : some);
  const own = await comparedRecords(tx, new Map([[kind, new Set(await open(ids))]]));
  const blocks = [...own.values()].flatMap((form) => blocksOf(form).map((block) => ({ record: kind, block })));
  const near = await candidates(tx, blocks);
  const others = await comparedRecords(tx, new Map([[kind, new Set(await open([...(near.get(kind) ?? [])]))]]));
  return pairsAround(own, others, model, ask);
}

async function openLeads(tx: WorkspaceTx, ids: readonly string[]): Promise<string[]> {
  const rows = await tx.statement<{ id: string }>(
    'open_leads',
    `select id from lead where workspace_id = $1 and id = any($2::uuid[]) and status = 'open'`,
    [tx.workspaceId, ids],
  );
  return rows.map(({ id }) => id);
}

function addTo(found: Candidates, kind: RecordKind, ids: readonly string[]): void {
  let all = found.get(kind);
  if (!all) found.set(kind, (all = new Set()));
  for (const id of ids) all.add(id);
}

async function underBlocks(
  tx: WorkspaceTx,
  blocks: readonly Block[],
): Promise<{ kind: RecordKind; block: string; ids: string[] }[]> {
  if (!blocks.length) return [];
  const rows = await tx.statement<{ kind: RecordKind; block: string; ids: string }>(
    'candidates',
    `select w.record_kind as kind, w.block, b.ids from (select distinct * from unnest($2::text[], $3::text[]) w (record_kind, block)) w
     cross join lateral (select string_agg(i.record_id::text, ' ') as ids, count(*) as size from (select i.record_id from record_block i
       where i.workspace_id = $1 and i.record_kind = w.record_kind and i.block = w.block limit ${LARGEST_BLOCK + 1}) i) b
     where b.size between 1 and ${LARGEST_BLOCK}`,
    [tx.workspaceId, blocks.map(({ record }) => record), blocks.map(({ block }) => block)],
  );
  return rows.map(({ ids, ...row }) => ({ ...row, ids: ids.split(' ') }));
}

/** Lists are read only where they hold more than the one value that has a column of its own. */
const SELECTED: Readonly<Record<string, string>> = {
  emails: 'nullif(emails, array[email]) as emails',
  phones: 'nullif(phones, array[phone]) as phones',
};

/** Records as they are compared, by id: only what tells who they are is read, and nothing is locked. */
async function comparedRecords(tx: WorkspaceTx, found: Candidates): Promise<Map<string, ComparedRecord>> {
  const compared = new Map<string, ComparedRecord>();
  for (const [kind, ids] of found) {
    const columns = fieldColumns(kind)
      .filter((column) => COMPARED_VALUES.has(column))
      .map((column) => SELECTED[column] ?? column);
    const rows = await tx.statement<FieldValues & { id: string }>(
      `compared_${kind}`,
      `select id, ${columns.join(', ')} from ${kind} where workspace_id = $1 and id = any($2::uuid[])`,
      [tx.workspaceId, [...ids]],
    );
    const employers = kind === 'contact' ? await employersOf(tx, [...ids]) : null;
    for (const { id, ...values } of rows)
      compared.set(id, comparedForm(kind, values, { companies: employers?.get(id) ?? [] }));
  }
  return compared;
}

async function employersOf(
  tx: WorkspaceTx,
  contacts: readonly string[],
): Promise<Map<string, { id: string; values: FieldValues }[]>> {
  const rows = await tx.statement<{ contact: string; id: string; name: string; domain: string }>(
    'employers_of',
    `select l.from_id as contact, c.id, c.name, c.domain from record_link l join company c on c.workspace_id = l.workspace_id and c.id = l.to_id
     where l.workspace_id = $1 and l.from_id = any($2::uuid[]) and l.to_kind = 'company'`,
    [tx.workspaceId, contacts],
  );
  const employers = new Map<string, { id: string; values: FieldValues }[]>();
  for (const { contact, id, name, domain } of rows) {
    const own = employers.get(contact) ?? [];
    employers.set(contact, [...own, { id, values: { name, domain } }]);
  }
  return employers;
}
