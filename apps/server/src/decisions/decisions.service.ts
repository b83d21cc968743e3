import { Inject, Injectable } from '@nestjs/common';
import { DECISION_KINDS, type Decided, type DecisionLine, type DecisionShape } from '@haycart/api';
import type { Caller } from '../platform/auth/caller';
import type { WorkspaceTx } from '../platform/database/database';
import { oneAtATime } from '../platform/database/one-at-a-time';
import { ProblemError } from '../platform/errors/problem-error';
import { Events } from '../platform/events/events';
import { PeopleService } from '../workspaces/people.service';
import { AnswerDecisions } from './answer-decisions';
import { AsideDecisions } from './aside-decisions';
import type { DecisionSource, Verdict } from './decision-source';
import { DriftDecisions } from './drift-decisions';
import { LookAlikeDecisions } from './look-alike-decisions';
import { RunDecisions } from './run-decisions';
import { UndeliveredDecisions } from './undelivered-decisions';
import { WhichRecordDecisions } from './which-record-decisions';
import { decision } from './tables';

interface Found {
  line: DecisionLine;
  source: DecisionSource;
}

/** The work list of everything that waits for a person. */
@Injectable()
export class DecisionsService {
  readonly #sources: readonly DecisionSource[];

  constructor(
    @Inject(DriftDecisions) drift: DriftDecisions,
    @Inject(RunDecisions) runs: RunDecisions,
    @Inject(AnswerDecisions) answers: AnswerDecisions,
    @Inject(AsideDecisions) aside: AsideDecisions,
    @Inject(LookAlikeDecisions) lookAlikes: LookAlikeDecisions,
    @Inject(WhichRecordDecisions) which: WhichRecordDecisions,
    @Inject(UndeliveredDecisions) undelivered: UndeliveredDecisions,
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(Events) private readonly events: Events,
  ) {
    this.#sources = [which, drift, runs, undelivered, lookAlikes, answers, aside] as DecisionSource[];
  }

  async lines(tx: WorkspaceTx): Promise<DecisionLine[]> {
    return (await this.#found(tx)).map(({ line: { id, kind, subject, detail, count, at, like } }) => ({
      id,
      kind,
      subject,
      detail,
      count,
      at,
      like,
    }));
  }

  async count(tx: WorkspaceTx): Promise<number> {
    let count = 0;
    for (const source of this.#sources) count += await source.count(tx);
    return count;
  }

  /** @throws ProblemError 404 when it is decided already. */
  async one(tx: WorkspaceTx, id: string): Promise<DecisionShape> {
    const { line, source } = this.#pick(await this.#found(tx), id);
    const { kind, subject, detail, count, at, like } = line;
    return { id, kind, subject, detail, count, at, like, ...(await source.details(tx, line)) };
  }

  /** Decides several alike. @throws ProblemError 404 when one of them is decided already. */
  async decide(tx: WorkspaceTx, ids: readonly string[], verdict: Verdict, by: Caller['by']): Promise<Decided> {
    await oneAtATime(tx, 'decisions');
    const before = await this.#found(tx);
    ids.forEach((id) => this.#pick(before, id));
    const done: string[] = [];
    for (const id of new Set(ids)) {
      // Each upon what the one before it did: they may be about the same route, or settle one another.
      const one = (await this.#found(tx)).find(({ line }) => line.id === id);
      if (!one) continue;
      if (verdict.action !== 'leave') done.push(await one.source.decide(tx, one.line, verdict, by));
      if (verdict.action === 'leave' || verdict.action === 'repair') await this.#remember(tx, id, verdict, by);
    }
    await this.events.tell(tx, 'decisions', 'runs', 'submissions', 'routes', 'records');
    return { text: done.length ? [...new Set(done)].join(' ') : 'Left as it is.' };
  }

  #pick(found: readonly Found[], id: string): Found {
    const one = found.find(({ line }) => line.id === id);
    if (!one)
      throw new ProblemError('not-found', 'This does not wait any more: somebody decided it, or it settled by itself.');
    return one;
  }

  async #found(tx: WorkspaceTx): Promise<Found[]> {
    const found: Found[] = [];
    for (const source of this.#sources) {
      for (const line of await source.lines(tx)) found.push({ line, source });
    }
    const order = (kind: DecisionLine['kind']) => DECISION_KINDS.indexOf(kind);
    return found.sort(
      (a, b) =>
        order(a.line.kind) - order(b.line.kind) ||
        // Pairs come the likeliest first already.
        (a.line.kind === 'look-alike' ? 0 : b.line.count - a.line.count || (a.line.at < b.line.at ? 1 : -1)),
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
