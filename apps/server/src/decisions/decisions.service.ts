import { Inject, Injectable } from '@nestjs/common';
import type { Decided, DecisionLine, DecisionList, DecisionShape } from '@haycart/api';
import type { Caller } from '../platform/auth/caller';
import type { WorkspaceTx } from '../platform/database/database';
import { oneAtATime } from '../platform/database/one-at-a-time';
import { ProblemError } from '../platform/errors/problem-error';
import { Events } from '../platform/events/events';
import { PeopleService } from '../workspaces/people.service';
import { KINDS, type AskedLines, type DecisionKind, type Verdict, type WaitingLine } from './kinds/decision-kind';
import { decision } from './tables';

interface Found {
  line: WaitingLine;
  source: DecisionKind;
}

/** The work list of everything that waits for a person. */
@Injectable()
export class DecisionsService {
  constructor(
    @Inject(KINDS) private readonly kinds: readonly DecisionKind[],
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(Events) private readonly events: Events,
  ) {}

  /** The first so many, those that are broken or held up most before the others. */
  async list(tx: WorkspaceTx, most: number): Promise<DecisionList> {
    const found = await this.#found(tx, { most });
    return { items: found.slice(0, most).map(({ line }) => shown(line)), total: await this.count(tx) };
  }

  async count(tx: WorkspaceTx): Promise<number> {
    let count = 0;
    for (const source of this.kinds) count += await source.count(tx);
    return count;
  }

  /** @throws ProblemError 404 when it is decided already. */
  async one(tx: WorkspaceTx, id: string): Promise<DecisionShape> {
    const { line, source } = await this.#one(tx, id);
    return { ...shown(line), ...(await source.details(tx, line)) };
  }

  /** Decides several alike. @throws ProblemError 404 when one of them is decided already. */
  async decide(tx: WorkspaceTx, ids: readonly string[], verdict: Verdict, by: Caller['by']): Promise<Decided> {
    await oneAtATime(tx, 'decisions');
    for (const id of ids) await this.#one(tx, id);
    const done: string[] = [];
    for (const id of new Set(ids)) {
      // Each upon what the one before it did: they may be about the same route, or settle one another.
      const [one] = await this.#found(tx, { most: 1, id });
      if (!one) continue;
      if (verdict.action !== 'leave') done.push(await one.source.decide(tx, one.line, verdict, by));
      if (verdict.action === 'leave' || verdict.action === 'repair') await this.#remember(tx, id, verdict, by);
    }
    await this.events.tell(tx, 'decisions', 'runs', 'submissions', 'routes', 'records');
    return { text: done.length ? [...new Set(done)].join(' ') : 'Left as it is.' };
  }

  async #one(tx: WorkspaceTx, id: string): Promise<Found> {
    const [one] = await this.#found(tx, { most: 1, id });
    if (!one)
      throw new ProblemError('not-found', 'This does not wait any more: somebody decided it, or it settled by itself.');
    return one;
  }

  async #found(tx: WorkspaceTx, asked: AskedLines): Promise<Found[]> {
    const found: Found[] = [];
    for (const source of this.kinds) {
      for (const line of await source.lines(tx, asked)) found.push({ line, source });
    }
    return found.sort(
      ({ line: a }, { line: b }) =>
        a.rank - b.rank || (a.inOrder ? 0 : b.count - a.count || (a.at < b.at ? 1 : a.at > b.at ? -1 : 0)),
    );
  }

  async #remember(tx: WorkspaceTx, id: string, { action }: Verdict, by: Caller['by']): Promise<void> {
    const name = await this.people.nameOf(tx, by);
    await tx.db
      .insert(decision)
      .values({ workspaceId: tx.workspaceId, id, action, by: name })
      .onConflictDoUpdate({ target: [decision.workspaceId, decision.id], set: { action, by: name, at: new Date() } });
  }
}

/** A line without what its kind alone knows. */
function shown({ id, kind, title, subject, detail, about, isFailure, count, at, like }: WaitingLine): DecisionLine {
  return { id, kind, title, subject, detail, about, isFailure, count, at, like };
}
