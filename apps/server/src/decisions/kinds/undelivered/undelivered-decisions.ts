import { Inject, Injectable } from '@nestjs/common';
import { counted, hostOf } from '@haycart/core';
import type { WorkspaceTx } from '../../../platform/database/database';
import { ProblemError } from '../../../platform/errors/problem-error';
import { OutboxService } from '../../../outbox/outbox.service';
import {
  LEAVE,
  MOST_COUNTED,
  type AskedLines,
  lineOf,
  type DecisionDetails,
  type DecisionKind,
  type KindOfLine,
  type Verdict,
  type WaitingLine,
} from '../decision-kind';
import { exampleOf, type Example } from '../examples';
import { notLeftAlone } from '../left-alone';

interface UndeliveredLine extends WaitingLine {
  route: { id: string; name: string };
  /** What one of them is called. */
  one: string;
  host: string;
}

const KIND: KindOfLine = {
  kind: 'undelivered',
  title: 'Not delivered',
  rank: 40,
  isFailure: true,
  about: ({ subject, detail }) => `${subject}: ${detail}`,
};
const EXAMPLES = 20;
/** What one thing of a kind is called; any other is a message. */
const CALLED: Readonly<Record<string, string>> = { post: 'post', mail: 'mail' };

/** What could not be sent however often it was tried: of one route to one address together. */
@Injectable()
export class UndeliveredDecisions implements DecisionKind<UndeliveredLine> {
  constructor(@Inject(OutboxService) private readonly outbox: OutboxService) {}

  async lines(tx: WorkspaceTx, { most, id: only }: AskedLines): Promise<UndeliveredLine[]> {
    const groups = await notLeftAlone(tx, await this.outbox.givenUp(tx, most, only ?? null));
    return groups.map(({ id, route, kind, to, why, count, at }) => ({
      ...lineOf(KIND, {
        id,
        subject: route.name,
        detail: why,
        count,
        at: at.toISOString(),
        like: `undelivered ${to}`,
      }),
      route,
      one: CALLED[kind] ?? 'message',
      host: hostOf(to) ?? to,
    }));
  }

  async count(tx: WorkspaceTx): Promise<number> {
    return (await notLeftAlone(tx, await this.outbox.givenUpLast(tx, MOST_COUNTED))).length;
  }

  async details(
    tx: WorkspaceTx,
    { id, route, one, subject, detail, count }: UndeliveredLine,
  ): Promise<DecisionDetails> {
    const items = await this.outbox.examplesOf(tx, id, EXAMPLES);
    const rows = await tx.statement<Example>(
      'examples_of_undelivered',
      `select id as submission_id, received_at, format, body, '' as text from submission where workspace_id = $1 and id = any($2::uuid[])`,
      [tx.workspaceId, items.map(({ submission }) => submission)],
    );
    const submissions = new Map(rows.map((row) => [row.submission_id, row]));
    return {
      question: `${counted(count, one)} of ${subject} could not be delivered`,
      story: detail,
      consequence: 'Send again: at once, and again later if that fails. Left: not asked again unless more is given up.',
      choices: [{ action: 'send-again', label: 'Send again', key: 'r' }, LEAVE],
      things: [{ kind: 'route', ...route }],
      examples: items.map(({ submission, lastError }) =>
        exampleOf({ ...submissions.get(submission)!, text: lastError ?? '' }),
      ),
      view: { as: 'plain' },
    };
  }

  async decide(tx: WorkspaceTx, { id, one, host }: UndeliveredLine, { action }: Verdict): Promise<string> {
    if (action !== 'send-again') throw new ProblemError('refused', 'These can be sent again, or left.');
    const sent = await this.outbox.retryGivenUp(tx, id);
    return `${counted(sent, one)} to ${host} ${sent === 1 ? 'is' : 'are'} sent again.`;
  }
}
