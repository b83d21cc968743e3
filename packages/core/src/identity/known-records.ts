import type { KnownRecord } from '../diff/known-record';
import type { Link, RecordKind } from '../diff/record';
import type { RecordsDiff } from '../diff/records-diff';
import { identityKeysOf, identityKeyText, type IdentityKey, type UniqueFields } from './keys';
import { blocksOf } from './likeness/blocks';
import { comparedForm, type ComparedRecord } from './likeness/compared';

/**
 * The records that planning may look at: those that `lookupsFor` asked for, with their links. It learns from each plan,
 * so that a batch of submissions is planned one after the other without asking the database again.
 */
export class KnownRecords {
  readonly #records = new Map<string, KnownRecord>();
  readonly #byKey = new Map<string, Set<string>>();
  readonly #linkedFrom = new Map<string, Set<string>>();
  readonly #linkedTo = new Map<string, Set<string>>();
  /** Records as they are compared, worked out when first asked for and once for however many comparisons. */
  readonly #compared = new Map<string, ComparedRecord>();
  /** The records by block, made when first asked for; see `blocksOf`. */
  #byBlock: Map<string, Set<string>> | null = null;

  /** @param uniques The fields that make records recognisable beside the built-in ones. */
  constructor(
    records: Iterable<KnownRecord> = [],
    links: Iterable<Link> = [],
    readonly uniques: UniqueFields = {},
  ) {
    for (const record of records) this.#add(record);
    for (const link of links) this.#link(link);
  }

  /** The same as it is now: what the one learns later the other does not know. */
  copy(): KnownRecords {
    const copy = new KnownRecords([], [], this.uniques);
    for (const [id, record] of this.#records) copy.#records.set(id, record);
    for (const [id, compared] of this.#compared) copy.#compared.set(id, compared);
    for (const [key, ids] of this.#byKey) copy.#byKey.set(key, new Set(ids));
    for (const [id, ends] of this.#linkedFrom) copy.#linkedFrom.set(id, new Set(ends));
    for (const [id, ends] of this.#linkedTo) copy.#linkedTo.set(id, new Set(ends));
    return copy;
  }

  get(id: string): KnownRecord | undefined {
    return this.#records.get(id);
  }

  all(): KnownRecord[] {
    return [...this.#records.values()];
  }

  /** The records that have an identity key, oldest first. */
  withKey(key: IdentityKey): KnownRecord[] {
    return this.#all(this.#byKey.get(identityKeyText(key))).sort(
      (a, b) => compare(a.createdAt, b.createdAt) || compare(a.id, b.id),
    );
  }

  /** A record as it is compared with others of its kind. */
  compared(record: KnownRecord): ComparedRecord {
    const own = this.#records.get(record.id) === record;
    const kept = own ? this.#compared.get(record.id) : undefined;
    if (kept) return kept;
    const compared = this.#workOutCompared(record);
    if (own) this.#compared.set(record.id, compared);
    return compared;
  }

  #workOutCompared(record: KnownRecord): ComparedRecord {
    const linked = [...(this.#linkedFrom.get(record.id) ?? [])].flatMap((id) => this.#records.get(id) ?? []);
    return comparedForm(record.kind, record.values, {
      companies: linked.filter(({ kind }) => kind === 'company'),
      contacts: linked.filter(({ kind }) => kind === 'contact').map(({ id }) => id),
      createdAt: record.createdAt,
    });
  }

  /** The records of a kind that share a block, by which those that may be alike are found. */
  withBlock(kind: RecordKind, blocks: readonly string[]): KnownRecord[] {
    if (!this.#byBlock) {
      this.#byBlock = new Map();
      for (const record of this.#records.values()) this.#addBlocks(record);
    }
    const ids = new Set<string>();
    for (const block of blocks) for (const id of this.#byBlock.get(`${kind} ${block}`) ?? []) ids.add(id);
    return this.#all(ids);
  }

  /** The companies that a record is linked to. */
  companiesOf(id: string): KnownRecord[] {
    return this.#all(this.#linkedFrom.get(id)).filter(({ kind }) => kind === 'company');
  }

  /** The records that point to this one. */
  pointingTo(id: string): KnownRecord[] {
    return this.#all(this.#linkedTo.get(id));
  }

  isLinked(link: Link): boolean {
    return this.#linkedFrom.get(link.from)?.has(link.to) ?? false;
  }

  /** The links between the records. */
  links(): Link[] {
    return [...this.#linkedFrom].flatMap(([from, ends]) => [...ends].map((to) => ({ from, to })));
  }

  /** Takes in what a plan will have done, or what a person typed. */
  learn(diff: RecordsDiff, at: string, typed = false): void {
    for (const id in diff.created) {
      const { kind, values } = diff.created[id]!;
      this.#add({
        id,
        kind,
        values,
        createdAt: at,
        writtenAt: Object.fromEntries(Object.keys(values).map((field) => [field, at])),
        typed: typed ? Object.keys(values) : [],
      });
    }
    for (const id in diff.changed) {
      const record = this.#records.get(id);
      if (!record) continue;
      const values = { ...record.values };
      const writtenAt = { ...record.writtenAt };
      for (const [field, { after }] of Object.entries(diff.changed[id]!.fields)) {
        if (after === null) delete values[field];
        else values[field] = after;
        writtenAt[field] = at;
      }
      this.#forgetKeys(record);
      const written = Object.keys(diff.changed[id]!.fields);
      const others = (record.typed ?? []).filter((field) => !written.includes(field));
      this.#add({ ...record, values, writtenAt, typed: typed ? [...others, ...written] : others });
    }
    for (const id in diff.removed) {
      const record = this.#records.get(id);
      if (record) this.#forgetKeys(record);
      this.#records.delete(id);
    }
    for (const link of diff.linked) this.#link(link);
    for (const { from, to } of diff.unlinked) {
      this.#linkedFrom.get(from)?.delete(to);
      this.#linkedTo.get(to)?.delete(from);
      this.#compared.delete(from);
    }
  }

  #add(record: KnownRecord): void {
    this.#records.set(record.id, record);
    this.#compared.delete(record.id);
    // A contact is compared by its companies too.
    if (record.kind === 'company') for (const from of this.#linkedTo.get(record.id) ?? []) this.#compared.delete(from);
    for (const key of identityKeysOf(record.kind, record.values, this.uniques))
      addTo(this.#byKey, identityKeyText(key), record.id);
    if (this.#byBlock) this.#addBlocks(record);
  }

  /** A record keeps the blocks it once had here: being compared without need does no harm. */
  #addBlocks(record: KnownRecord): void {
    for (const block of blocksOf(this.compared(record))) addTo(this.#byBlock!, `${record.kind} ${block}`, record.id);
  }

  #forgetKeys(record: KnownRecord): void {
    for (const key of identityKeysOf(record.kind, record.values, this.uniques))
      this.#byKey.get(identityKeyText(key))?.delete(record.id);
  }

  #link(link: Link): void {
    addTo(this.#linkedFrom, link.from, link.to);
    addTo(this.#linkedTo, link.to, link.from);
    this.#compared.delete(link.from);
  }

  #all(ids: Iterable<string> = []): KnownRecord[] {
    return [...ids].flatMap((id) => this.#records.get(id) ?? []);
  }
}

function addTo(index: Map<string, Set<string>>, key: string, id: string): void {
  const ids = index.get(key);
  if (ids) ids.add(id);
  else index.set(key, new Set([id]));
}

function compare(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0;
}
