import { Inject, Injectable } from '@nestjs/common';
import { counted, hostOf } from '@haycart/core';
import type { DecisionLine } from '@haycart/api';
import { and, eq, inArray } from 'drizzle-orm';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { OutboxService } from '../outbox/outbox.service';
import { NO_DETAILS, type DecisionDetails, type DecisionSource, type Verdict } from './decision-source';
import { exampleOf, type Example } from './run-decisions';
import { decision } from './tables';

interface UndeliveredLine extends DecisionLine {
  route: { id: string; name: string };
  host: string;
}

const EXAMPLES = 20;

/** What could not be sent however often it was tried: of one route to one address together. */
@Injectable()
export class UndeliveredDecisions implements DecisionSource<UndeliveredLine> {
  constructor(@Inject(OutboxService) private readonly outbox: OutboxService) {}

  async lines(tx: WorkspaceTx): Promise<UndeliveredLine[]> {
    const groups = await this.#waiting(tx, await this.outbox.givenUp(tx));
    return groups.map(({ id, route, to, why, count, at }) => {
      const host = hostOf(to) ?? to;
      return {
        id,
        kind: 'undelivered',
        subject: route.name,
        detail: why,
        count,
        at: at.toISOString(),
        like: `undelivered ${to}`,
        route,
        host,
      };
    });
  }

  async count(tx: WorkspaceTx): Promise<number> {
    return (await this.#waiting(tx, await this.outbox.givenUpLast(tx))).length;
  }

  async details(tx: WorkspaceTx, { id, route }: UndeliveredLine): Promise<DecisionDetails> {
    const items = await this.outbox.examplesOf(tx, id, EXAMPLES);
    const rows = await tx.statement<Example>(
      'examples_of_undelivered',
      `select id as submission_id, received_at, format, body, '' as text from submission where workspace_id = $1 and id = any($2::uuid[])`,
      [tx.workspaceId, items.map(({ submission }) => submission)],
    );
    const submissions = new Map(rows.map((row) => [row.submission_id, row]));
    return {
      ...NO_DETAILS,
      actions: ['send-again', 'leave'],
      routes: [route],
      examples: items.map(({ submission, lastError }) =>
        exampleOf({ ...submissions.get(submission)!, text: lastError ?? '' }),
      ),
    };
  }

  async decide(tx: WorkspaceTx, { id, host }: UndeliveredLine, { action }: Verdict): Promise<string> {
    if (action !== 'send-again') throw new ProblemError('refused', 'These can be sent again, or left.');
    const sent = await this.outbox.retryGivenUp(tx, id);
    return `${counted(sent, 'post')} to ${host} ${sent === 1 ? 'is' : 'are'} sent again.`;
  }

  /** Without those that somebody left and that nothing came to since. */
  async #waiting<One extends { id: string; at: Date }>(tx: WorkspaceTx, all: readonly One[]): Promise<One[]> {
    if (!all.length) return [];
    const rows = await tx.db
      .select({ id: decision.id, at: decision.at })
      .from(decision)
      .where(
        and(
          eq(decision.workspaceId, tx.workspaceId),
          inArray(
            decision.id,
            all.map(({ id }) => id),
          ),
        ),
      );
    const left = new Map(rows.map(({ id, at }) => [id, at]));
    return all.filter(({ id, at }) => at > (left.get(id) ?? new Date(0)));
  }
}
