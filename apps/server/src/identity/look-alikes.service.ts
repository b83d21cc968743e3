import { Inject, Injectable } from '@nestjs/common';
import { verdictOn, type RecordKind } from '@haycart/core';
import type { LookAlikeGroup, LookAlikeLine, MergeRehearsal } from '@haycart/api';
import type { Caller } from '../platform/auth/caller';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { Events } from '../platform/events/events';
import { isId } from '../platform/paging';
import { RecordsService } from '../records/records.service';
import { PeopleService } from '../workspaces/people.service';
import { LookAlikesStore, type PairRow } from './look-alikes.store';
import { MergesService, type MergeChoice } from './merges.service';

/** A pair that waits, as it is listed. */
export interface WaitingPair extends LookAlikeLine {
  foundAt: string;
  later: boolean;
}

/** How many merges one accepting does. */
const MOST_ACCEPTED = 500;

/** Pairs of records that may be the same: what waits, what they are, and what becomes of them. */
@Injectable()
export class LookAlikesService {
  constructor(
    @Inject(LookAlikesStore) private readonly pairs: LookAlikesStore,
    @Inject(RecordsService) private readonly records: RecordsService,
    @Inject(MergesService) private readonly merges: MergesService,
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(Events) private readonly events: Events,
  ) {}

  async waiting(
    tx: WorkspaceTx,
    most: number,
    where: { kind?: RecordKind; least?: number } = {},
  ): Promise<WaitingPair[]> {
    return this.lines(tx, await this.pairs.open(tx, { ...where, most }));
  }

  /** A pair, if it waits. */
  async waitingPair(tx: WorkspaceTx, one: string, other: string): Promise<WaitingPair[]> {
    const pair = await this.pairs.one(tx, one, other);
    return pair?.state === 'open' || pair?.state === 'later' ? this.lines(tx, [pair]) : [];
  }

  /** How many pairs wait, `most` at most. */
  waitingCount(tx: WorkspaceTx, most: number): Promise<number> {
    return this.pairs.openCount(tx, most);
  }

  /** A pair with its rehearsed merge, and the others that hang together with it. */
  async look(
    tx: WorkspaceTx,
    one: string,
    other: string,
  ): Promise<{ rehearsal: MergeRehearsal; group: LookAlikeGroup }> {
    const pair = await this.#pair(tx, one, other);
    const rehearsal = await this.merges.rehearse(tx, { kind: pair.record_kind, ids: [one, other] });
    return { rehearsal, group: await this.#group(tx, pair) };
  }

  /** Makes one of a pair, or of a whole group where all of it hangs together. */
  async same(
    tx: WorkspaceTx,
    one: string,
    other: string,
    wish: Pick<MergeChoice, 'survivor' | 'values'> & { whole?: boolean },
    by: Caller['by'],
  ): Promise<number> {
    const pair = await this.#pair(tx, one, other);
    let ids = [one, other];
    if (wish.whole) {
      const group = await this.#group(tx, pair);
      if (!group.complete)
        throw new ProblemError(
          'refused',
          'These are not all like one another, so they are not merged at once. Decide them pair by pair.',
        );
      ids = [...ids, ...group.others.map(({ id }) => id)];
    }
    const { merges } = await this.merges.merge(tx, { kind: pair.record_kind, ids, ...wish }, by);
    return merges.length;
  }

  async different(tx: WorkspaceTx, one: string, other: string, by: Caller['by']): Promise<void> {
    await this.#decide(tx, one, other, 'different', by);
  }

  async later(tx: WorkspaceTx, one: string, other: string, by: Caller['by']): Promise<void> {
    await this.#decide(tx, one, other, 'later', by);
  }

  /** What accepting every pair from a probability on would merge; pairs that hang together only in a chain are left. */
  async acceptable(
    tx: WorkspaceTx,
    kind: RecordKind,
    least: number,
  ): Promise<{ merged: LookAlikeLine[]; left: LookAlikeLine[] }> {
    const { sure, chained } = withoutChains(await this.#sure(tx, kind, least));
    return { merged: await this.lines(tx, sure), left: await this.lines(tx, chained) };
  }

  /** Merges every pair from a probability on but those that hang together only in a chain. */
  async accept(tx: WorkspaceTx, kind: RecordKind, least: number, by: Caller['by']): Promise<number> {
    const { sure } = withoutChains(await this.#sure(tx, kind, least));
    let merged = 0;
    for (const { one_id: one, other_id: other } of sure.slice(0, MOST_ACCEPTED)) {
      const survivors = await this.records.survivors(tx, [one, other]);
      const ids = [survivors.get(one) ?? one, survivors.get(other) ?? other];
      if (ids[0] === ids[1]) continue;
      merged += (await this.merges.merge(tx, { kind, ids }, by)).merges.length;
    }
    return merged;
  }

  /** Pairs that may be accepted from a probability on. */
  async #sure(tx: WorkspaceTx, kind: RecordKind, least: number): Promise<PairRow[]> {
    const rows = await this.pairs.open(tx, { kind, least, most: 5_000 });
    return rows.filter((pair) => verdictOn(pair, kind, { accept: least, ask: least }) === 'accept');
  }

  async #decide(
    tx: WorkspaceTx,
    one: string,
    other: string,
    state: 'different' | 'later',
    by: Caller['by'],
  ): Promise<void> {
    await this.#pair(tx, one, other);
    await this.pairs.decide(tx, [{ one, other }], state, await this.people.nameOf(tx, by));
    await this.events.tell(tx, 'decisions');
  }

  async #pair(tx: WorkspaceTx, one: string, other: string): Promise<PairRow> {
    const pair = isId(one) && isId(other) ? await this.pairs.one(tx, one, other) : undefined;
    if (!pair || pair.state === 'same' || pair.state === 'different')
      throw new ProblemError('not-found', 'This pair does not wait any more: somebody decided it.');
    return pair;
  }

  async #group(tx: WorkspaceTx, pair: PairRow): Promise<LookAlikeGroup> {
    const rows = await this.pairs.groupOf(tx, [pair.one_id, pair.other_id]);
    const ids = [...new Set(rows.flatMap(({ one_id: one, other_id: other }) => [one, other]))];
    const others = ids.filter((id) => id !== pair.one_id && id !== pair.other_id);
    const names = await this.records.named(tx, others);
    return {
      others: others.flatMap((id) => names.get(id) ?? []),
      complete: rows.length === (ids.length * (ids.length - 1)) / 2,
    };
  }

  /** Pairs with the names of both; those of which one is gone are left out. */
  async lines(tx: WorkspaceTx, rows: readonly PairRow[]): Promise<WaitingPair[]> {
    const names = await this.records.named(
      tx,
      rows.flatMap(({ one_id: one, other_id: other }) => [one, other]),
    );
    return rows.flatMap((row) => {
      const [one, other] = [names.get(row.one_id), names.get(row.other_id)];
      if (!one || !other) return [];
      const { record_kind: kind, probability, found_at: at, state } = row;
      return [{ kind, one, other, probability, foundAt: at.toISOString(), later: state === 'later' }];
    });
  }
}

/**
 * Pairs that may be accepted together: of records that hang together, all must be like one another. A like B and B like C
 * does not make A and C one.
 */
function withoutChains(rows: readonly PairRow[]): { sure: PairRow[]; chained: PairRow[] } {
  const of = new Map<string, Set<string>>();
  const add = (from: string, to: string) => of.set(from, (of.get(from) ?? new Set()).add(to));
  for (const { one_id: one, other_id: other } of rows) {
    add(one, other);
    add(other, one);
  }
  const closed = ({ one_id: one, other_id: other }: PairRow) =>
    [...of.get(one)!].every((near) => near === other || of.get(other)!.has(near)) &&
    [...of.get(other)!].every((near) => near === one || of.get(one)!.has(near));
  return { sure: rows.filter(closed), chained: rows.filter((row) => !closed(row)) };
}
