import { Inject, Injectable } from '@nestjs/common';
import {
  KnownRecords,
  RECORD_KINDS,
  identityKeyText,
  uniqueFieldsOf,
  type Block,
  type Destination,
  type IdentityKey,
  type KnownRecord,
  type Link,
  type RecordKind,
  type Sought,
} from '@haycart/core';
import type { WorkspaceTx } from '../platform/database/database';
import { CandidateSearch } from './recognised/candidate-search.service';
import { candidates, likelyCandidates, type Candidates } from './recognised/candidates';
import { knownRecord, type RecordRow } from './record-rows';

/** Whether records are kept from being changed until the transaction ends, or only looked at. */
export type Hold = 'lock' | 'look';
const HOLDS: Record<Hold, string> = { lock: 'for no key update', look: '' };

/** How many owners of one shared key are looked at. */
const MOST_SHARING = 100;

/** Which records planning wants to know. */
export interface WantedRecords {
  keys: readonly IdentityKey[];
  deals: boolean;
  blocks: readonly Block[];
  /** What is looked for under these blocks; where given, only those that a rule may take or ask about are loaded. */
  sought?: readonly Sought[];
  /** Named outright, as by a person who was asked. */
  ids?: readonly string[];
}

/** Under which names keys and blocks are locked, each once. */
export function lockNames(workspaceId: string, keys: readonly IdentityKey[], blocks: readonly Block[]): string[] {
  // A mailbox is an address too, and locked as that.
  const named = keys.filter(({ kind }) => kind !== 'mailbox');
  const texts = [...named.map(identityKeyText), ...blocks.map(({ record, block }) => `${record} ~ ${block}`)];
  return [...new Set(texts.map((text) => `${workspaceId} ${text}`))];
}

/** Looks up what planning must know, for a whole batch at once, and keeps others from changing it meanwhile. */
@Injectable()
export class KnownRecordsStore {
  constructor(@Inject(CandidateSearch) private readonly search: CandidateSearch) {}

  /**
   * Locks identity keys, and what likeness goes by, until the transaction ends, so that of two transactions with a key in common the later one sees
   * what the earlier one wrote. Always in the same order, so that two can never wait for each other.
   */
  async lock(tx: WorkspaceTx, keys: readonly IdentityKey[], blocks: readonly Block[] = []): Promise<void> {
    const names = lockNames(tx.workspaceId, keys, blocks);
    if (!names.length) return;
    await tx.statement(
      'lock_keys',
      `select pg_advisory_xact_lock(name) from (select distinct hashtextextended(n, 0) as name from unnest($1::text[]) n order by 1) names`,
      [names],
    );
  }

  /** The records that were looked for and, where asked for, the deals of the contacts among them. */
  async load(tx: WorkspaceTx, wanted: WantedRecords, destination: Destination, how: Hold): Promise<KnownRecords> {
    const found = await this.#found(tx, wanted, destination, how);
    const contacts = await this.byId(tx, 'contact', found.contact, how);
    const leads = await this.byId(tx, 'lead', found.lead, how);
    const links = await this.#linksAround(tx, found.contact);
    const dealIds = links.filter((link) => link.from_kind === 'deal').map(({ from }) => from);
    const ofContacts = wanted.deals ? await this.byId(tx, 'deal', [...new Set(dealIds)], how) : [];
    const ownDeals = await this.byId(tx, 'deal', found.deal, how);
    const companies = await this.byId(tx, 'company', found.company, how);
    // Candidates are compared by their companies too, which nobody is about to change.
    const employers = wanted.blocks.length ? await this.#employers(tx, contacts, links, found.company) : [];
    return new KnownRecords(
      [...contacts, ...companies, ...employers, ...leads, ...ofContacts, ...ownDeals],
      links,
      uniqueFieldsOf(destination.fields),
    );
  }

  #employers(
    tx: WorkspaceTx,
    contacts: readonly KnownRecord[],
    links: readonly Link[],
    known: readonly string[],
  ): Promise<KnownRecord[]> {
    const own = new Set(contacts.map(({ id }) => id));
    const ends = new Set(links.filter(({ from }) => own.has(from)).map(({ to }) => to));
    return this.byId(
      tx,
      'company',
      [...ends].filter((id) => !known.includes(id)),
      'look',
    );
  }

  /** The links of contacts and of their deals. A company's own links are not read: a large one has any number of them. */
  async #linksAround(tx: WorkspaceTx, contacts: readonly string[]): Promise<(Link & { from_kind: RecordKind })[]> {
    if (!contacts.length) return [];
    return tx.statement(
      'links_around',
      `with of_contact as (
         select from_id, to_id, from_kind from record_link where workspace_id = $1 and from_id = any($2::uuid[])
         union select from_id, to_id, from_kind from record_link where workspace_id = $1 and to_id = any($2::uuid[])
       ), deal as materialized (select array_agg(distinct from_id) as ids from of_contact where from_kind = 'deal')
       select from_id as "from", to_id as "to", from_kind from of_contact
       union select l.from_id, l.to_id, l.from_kind from record_link l where l.workspace_id = $1 and l.from_id = any((select ids from deal)::uuid[])
       union select l.from_id, l.to_id, l.from_kind from record_link l where l.workspace_id = $1 and l.to_id = any((select ids from deal)::uuid[])`,
      [tx.workspaceId, contacts],
    );
  }

  /** All links of records, in either direction. */
  async linksOf(tx: WorkspaceTx, ids: readonly string[]): Promise<Link[]> {
    if (!ids.length) return [];
    return tx.statement<Link>(
      'links_of',
      `select from_id as "from", to_id as "to" from record_link where workspace_id = $1 and from_id = any($2::uuid[])
       union select from_id, to_id from record_link where workspace_id = $1 and to_id = any($2::uuid[])`,
      [tx.workspaceId, ids],
    );
  }

  /** Which records have identity keys. */
  async owners(
    tx: WorkspaceTx,
    keys: readonly IdentityKey[],
  ): Promise<{ record_kind: RecordKind; key_kind: string; value: string; record_id: string }[]> {
    if (!keys.length) return [];
    return tx.statement(
      'key_owners',
      `select k.record_kind, k.key_kind, k.value, k.record_id from identity_key k
       join unnest($2::text[], $3::text[], $4::text[]) w (record_kind, key_kind, value) using (record_kind, key_kind, value) where k.workspace_id = $1`,
      [tx.workspaceId, keys.map(({ record }) => record), keys.map(({ kind }) => kind), keys.map(({ value }) => value)],
    );
  }

  async byId(tx: WorkspaceTx, kind: RecordKind, ids: readonly string[], how: Hold): Promise<KnownRecord[]> {
    if (!ids.length) return [];
    const rows = await tx.statement<RecordRow>(
      `${kind}_by_id_${how}`,
      `select * from ${kind} where workspace_id = $1 and id = any($2::uuid[]) order by id ${HOLDS[how]}`,
      [tx.workspaceId, ids],
    );
    return rows.map((row) => knownRecord(kind, row));
  }

  /** The ids of what is wanted: by key, by block, or named outright. */
  async #found(
    tx: WorkspaceTx,
    { keys, blocks, sought, ids = [] }: WantedRecords,
    { likeness }: Destination,
    how: Hold,
  ): Promise<Record<RecordKind, string[]>> {
    const found = await this.#withKeys(tx, keys);
    const alike = await (sought ? this.#likely(tx, sought, likeness, how) : candidates(tx, blocks));
    const named = ids.length ? await this.#named(tx, ids) : [];
    for (const { record_kind: kind, record_id: id } of named) found[kind].push(id);
    for (const [kind, more] of alike) found[kind].push(...more);
    for (const kind of RECORD_KINDS) found[kind] = [...new Set(found[kind])];
    return found;
  }

  /** Who merely looks may have changed something in the same transaction, which only that sees. */
  #likely(
    tx: WorkspaceTx,
    sought: readonly Sought[],
    likeness: Destination['likeness'],
    how: Hold,
  ): Promise<Candidates> {
    return how === 'lock' ? this.search.likely(tx, sought, likeness) : likelyCandidates(tx, sought, likeness);
  }

  /** Those of some ids that are there, or what they became part of. */
  async #named(tx: WorkspaceTx, ids: readonly string[]): Promise<{ record_kind: RecordKind; record_id: string }[]> {
    const rows = [];
    for (const kind of RECORD_KINDS)
      for (const { id } of await this.byId(tx, kind, ids, 'look')) rows.push({ record_kind: kind, record_id: id });
    return rows;
  }

  /**
   * The ids behind identity keys. E-mail and domain are asked apart, so that each is a plain search in the index; an address
   * that several people use is `email` of one and `shared-email` of the others.
   */
  async #withKeys(tx: WorkspaceTx, keys: readonly IdentityKey[]): Promise<Record<RecordKind, string[]>> {
    const values = (record: RecordKind, kind: IdentityKey['kind']) =>
      keys.filter((key) => key.record === record && key.kind === kind).map(({ value }) => value);
    const rows = await tx.statement<{ record_kind: RecordKind; record_id: string }>(
      'ids_with_keys',
      `select record_kind, record_id from identity_key where workspace_id = $1 and record_kind = 'contact' and key_kind = 'email' and value = any($2::text[])
       union select record_kind, record_id from identity_key where workspace_id = $1 and record_kind = 'contact' and key_kind = 'shared-email' and value = any($2::text[])
       union select record_kind, record_id from identity_key where workspace_id = $1 and record_kind = 'contact' and key_kind = 'mailbox' and value = any($3::text[])
       union select record_kind, record_id from identity_key where workspace_id = $1 and record_kind = 'company' and key_kind = 'domain' and value = any($4::text[])
       union select record_kind, record_id from identity_key where workspace_id = $1 and record_kind = 'lead' and key_kind = 'email' and value = any($5::text[])`,
      [
        tx.workspaceId,
        values('contact', 'email'),
        values('contact', 'mailbox'),
        values('company', 'domain'),
        values('lead', 'email'),
      ],
    );
    const usual = new Set(['contact email', 'contact mailbox', 'company domain', 'lead email']);
    const others = keys.filter(({ record, kind }) => !usual.has(`${record} ${kind}`));
    for (const { record_kind, record_id } of await this.#several(tx, others)) rows.push({ record_kind, record_id });
    const ids = (record: RecordKind) => [
      ...new Set(rows.filter((row) => row.record_kind === record).map((row) => row.record_id)),
    ];
    return { contact: ids('contact'), company: ids('company'), lead: ids('lead'), deal: ids('deal') };
  }

  /** The owners of keys that many may share, of each key no more than anybody can tell apart. */
  async #several(
    tx: WorkspaceTx,
    keys: readonly IdentityKey[],
  ): Promise<{ record_kind: RecordKind; record_id: string }[]> {
    if (!keys.length) return [];
    return tx.statement(
      'owners_of_shared',
      `select k.record_kind, k.record_id from (select distinct * from unnest($2::text[], $3::text[], $4::text[]) w (record_kind, key_kind, value)) w
       cross join lateral (select record_kind, record_id from identity_key i where i.workspace_id = $1 and i.record_kind = w.record_kind
         and i.key_kind = w.key_kind and i.value = w.value order by record_id limit ${MOST_SHARING}) k`,
      [tx.workspaceId, keys.map(({ record }) => record), keys.map(({ kind }) => kind), keys.map(({ value }) => value)],
    );
  }
}
