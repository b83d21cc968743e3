import { Inject, Injectable } from '@nestjs/common';
import type { SourceChange, SourceMoves } from '@haycart/api';
import { counted, type ChannelRules, type Source } from '@haycart/core';
import { and, desc, eq } from 'drizzle-orm';
import { DestinationService } from '../../destination/destination.service';
import type { Caller } from '../../platform/auth/caller';
import type { WorkspaceTx } from '../../platform/database/database';
import { oneAtATime } from '../../platform/database/one-at-a-time';
import { ProblemError } from '../../platform/errors/problem-error';
import { newId } from '../../platform/new-id';
import { VisitSources, type MovedVisits } from '../../records/history/visit-sources.service';
import { PeopleService } from '../../workspaces/people.service';
import { MovesService, type Move } from './moves.service';
import { sourceChange, sourceChangePart } from './tables';

/** The most kinds of moves that are listed. */
const TOLD = 50;
const LATEST = 20;

/** Changes the sources of past visits, and takes such changes back. */
@Injectable()
export class SourceChanges {
  constructor(
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(MovesService) private readonly moving: MovesService,
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(VisitSources) private readonly visits: VisitSources,
  ) {}

  /** Counts the moves that rules would make among visits since a moment. Writes nothing. */
  async rehearse(tx: WorkspaceTx, rules: ChannelRules, since: Date): Promise<SourceMoves> {
    const destination = { ...(await this.destinations.load(tx)), channelRules: rules };
    const kinds = new MoveKinds();
    let looked = 0;
    for await (const portion of this.moving.moves(tx, destination, since)) {
      looked += portion.looked;
      for (const move of portion.moves) kinds.add(move);
    }
    return { looked, touches: kinds.touches, moves: kinds.told(), more: kinds.more };
  }

  /** Applies the current rules to all past visits. Returns null when nothing moves. */
  async applyRules(tx: WorkspaceTx, by: Caller['by']): Promise<SourceChange | null> {
    await oneAtATime(tx, 'source-changes');
    const destination = await this.destinations.load(tx);
    const kinds = new MoveKinds();
    const moved: MovedVisits[] = [];
    for await (const { moves } of this.moving.moves(tx, destination)) {
      for (const move of moves) kinds.add(move);
      if (moves.length) moved.push(...(await this.visits.moveWays(tx, moves)));
    }
    return moved.length ? this.#keep(tx, by, 'rules', kinds.words(), moved) : null;
  }

  /** Sets the source of visits as a person says. */
  async correct(tx: WorkspaceTx, by: Caller['by'], ids: readonly string[], to: Source): Promise<SourceChange> {
    await oneAtATime(tx, 'source-changes');
    const moved = await this.visits.correct(tx, ids, to);
    if (!moved.length) throw new ProblemError('not-found', 'There is no such touch.');
    return this.#keep(
      tx,
      by,
      'correction',
      `Said of ${counted(countOf(moved), 'touch', 'touches')}: ${nameOf(to)}`,
      moved,
    );
  }

  /** @throws ProblemError 404, and 409 when it was taken back before */
  async takeBack(tx: WorkspaceTx, by: Caller['by'], id: string): Promise<SourceChange> {
    await oneAtATime(tx, 'source-changes');
    const mine = and(eq(sourceChange.workspaceId, tx.workspaceId), eq(sourceChange.id, id));
    const [change] = await tx.db.select().from(sourceChange).where(mine);
    if (!change) throw new ProblemError('not-found', 'There is no such change.');
    if (change.takenBackAt) throw new ProblemError('conflict', 'It was taken back before.');
    const parts = await tx.db
      .select({ from: sourceChangePart.fromSourceId, to: sourceChangePart.toSourceId, visits: sourceChangePart.visits })
      .from(sourceChangePart)
      .where(and(eq(sourceChangePart.workspaceId, tx.workspaceId), eq(sourceChangePart.changeId, id)));
    let touches = 0;
    const still = change.kind === 'correction' ? await this.#correctedBefore(tx, id) : [];
    for (const part of parts) touches += await this.visits.giveBack(tx, part, change.kind === 'correction', still);
    const taken = { takenBackAt: new Date(), takenBackBy: await this.people.nameOf(tx, by) };
    await tx.db.update(sourceChange).set(taken).where(mine);
    return shapeOf({ ...change, ...taken }, touches);
  }

  async latest(tx: WorkspaceTx): Promise<SourceChange[]> {
    const rows = await tx.db
      .select()
      .from(sourceChange)
      .where(eq(sourceChange.workspaceId, tx.workspaceId))
      .orderBy(desc(sourceChange.at), desc(sourceChange.id))
      .limit(LATEST);
    return rows.map((row) => shapeOf(row));
  }

  /** The visits of this correction that were already corrected before, by a correction that was not taken back. */
  async #correctedBefore(tx: WorkspaceTx, id: string): Promise<string[]> {
    const rows = await tx.statement<{ visit: string }>(
      'corrected_before',
      `select distinct v.visit from source_change_part p cross join unnest(p.visits) v (visit)
       join source_change_part b on b.workspace_id = p.workspace_id and b.change_id <> p.change_id
         and b.to_source_id = p.from_source_id and v.visit = any(b.visits)
       join source_change c on c.workspace_id = b.workspace_id and c.id = b.change_id
       where p.workspace_id = $1 and p.change_id = $2 and c.kind = 'correction' and c.taken_back_at is null`,
      [tx.workspaceId, id],
    );
    return rows.map(({ visit }) => visit);
  }

  async #keep(
    tx: WorkspaceTx,
    by: Caller['by'],
    kind: 'rules' | 'correction',
    text: string,
    moved: readonly MovedVisits[],
  ): Promise<SourceChange> {
    const row = {
      id: newId(),
      personId: by.kind === 'person' ? by.id : null,
      by: await this.people.nameOf(tx, by),
      kind,
      text,
    };
    const [kept] = await tx.db
      .insert(sourceChange)
      .values({ workspaceId: tx.workspaceId, ...row })
      .returning();
    await tx.db.insert(sourceChangePart).values(
      together(moved).map(({ from, to, visits }) => ({
        workspaceId: tx.workspaceId,
        changeId: row.id,
        fromSourceId: from,
        toSourceId: to,
        visits,
      })),
    );
    return shapeOf(kept!, countOf(moved));
  }
}

/** Adds up moves by old and new source. */
class MoveKinds {
  readonly #kinds = new Map<string, SourceMoves['moves'][number]>();
  touches = 0;

  get more(): number {
    return Math.max(0, this.#kinds.size - TOLD);
  }

  add({ before, after, touches }: Move): void {
    const from = { channel: before.channel, source: before.source };
    const to = { channel: after.channel, source: after.source };
    const key = JSON.stringify([from, to]);
    const known = this.#kinds.get(key);
    if (known) known.touches += touches;
    else this.#kinds.set(key, { from, to, touches });
    this.touches += touches;
  }

  /** The largest moves first. */
  told(): SourceMoves['moves'] {
    return [...this.#kinds.values()].sort((a, b) => b.touches - a.touches).slice(0, TOLD);
  }

  /** `Moved 312 touches, most of them from direct to partner`. */
  words(): string {
    const [first] = this.told();
    const whole = `Moved ${counted(this.touches, 'touch', 'touches')}`;
    if (!first) return whole;
    const how = `${nameOf(first.from)} to ${nameOf(first.to)}`;
    return `${whole}${this.#kinds.size > 1 ? ', most of them' : ''} from ${how}`;
  }
}

function nameOf({ channel, source }: Pick<Source, 'channel' | 'source'>): string {
  return channel === source ? channel : `${source} (${channel})`;
}

function countOf(moved: readonly MovedVisits[]): number {
  return moved.reduce((sum, { visits }) => sum + visits.length, 0);
}

/** Merges moves between the same two sources. */
function together(moved: readonly MovedVisits[]): MovedVisits[] {
  const parts = new Map<string, MovedVisits>();
  for (const { from, to, visits } of moved) {
    const key = `${from} ${to}`;
    const part = parts.get(key) ?? { from, to, visits: [] };
    for (const visit of visits) part.visits.push(visit);
    parts.set(key, part);
  }
  return [...parts.values()];
}

function shapeOf(row: typeof sourceChange.$inferSelect, touches?: number): SourceChange {
  return {
    id: row.id,
    at: row.at.toISOString(),
    by: row.by,
    kind: row.kind,
    text: row.text,
    takenBack: row.takenBackAt ? { at: row.takenBackAt.toISOString(), by: row.takenBackBy! } : null,
    ...(touches === undefined ? {} : { touches }),
  };
}
