import { Inject, Injectable } from '@nestjs/common';
import { counted } from '@haycart/core';
import type { WorkspaceTx } from '../../../platform/database/database';
import { ProblemError } from '../../../platform/errors/problem-error';
import { SubmissionQueue } from '../../../submissions/submission-queue';
import {
  LEAVE,
  type AskedLines,
  lineOf,
  type DecisionDetails,
  type DecisionKind,
  type KindOfLine,
  type Verdict,
  type WaitingLine,
} from '../decision-kind';
import { exampleOf, type Example } from '../examples';

interface AsideLine extends WaitingLine {
  intake: string;
}

const KIND: KindOfLine = {
  kind: 'set-aside',
  title: 'Set aside as spam?',
  rank: 120,
  about: ({ subject }) => subject,
};

/** What was set aside and not looked at yet, by the id of its intake’s decision. */
const ASIDE = `select 'set-aside.' || md5(s.intake_id::text) as id, s.id as submission_id, i.key, i.name, s.received_at, s.format, s.body
  from submission s join intake i on i.workspace_id = s.workspace_id and i.id = s.intake_id
  left join decision left_alone on left_alone.workspace_id = $1 and left_alone.id = 'set-aside.' || md5(s.intake_id::text)
  where s.workspace_id = $1 and s.state = 'set-aside' and (left_alone.at is null or s.received_at > left_alone.at)`;
const EXAMPLES = 20;

/** Submissions that look as if no person had sent them, by intake. */
@Injectable()
export class AsideDecisions implements DecisionKind<AsideLine> {
  constructor(@Inject(SubmissionQueue) private readonly queue: SubmissionQueue) {}

  async lines(tx: WorkspaceTx, { most, id: only }: AskedLines): Promise<AsideLine[]> {
    const rows = await tx.statement<{ id: string; key: string; name: string; count: number; at: Date }>(
      'aside_decisions',
      `select id, key, name, count(*)::int as count, max(received_at) as at from (${ASIDE}) a
       where $3::text is null or id = $3 group by 1, 2, 3 order by at desc limit $2`,
      [tx.workspaceId, most, only ?? null],
    );
    return rows.map(({ id, key, name, count, at }) => ({
      ...lineOf(KIND, {
        id,
        subject: name,
        detail: counted(count, 'submission'),
        count,
        at: at.toISOString(),
        like: 'set-aside',
      }),
      intake: key,
    }));
  }

  async count(tx: WorkspaceTx): Promise<number> {
    const [row] = await tx.statement<{ n: number }>(
      'aside_decision_count',
      `select count(distinct id)::int as n from (${ASIDE}) a`,
      [tx.workspaceId],
    );
    return row!.n;
  }

  async details(tx: WorkspaceTx, { id, intake, subject, count }: AsideLine): Promise<DecisionDetails> {
    const rows = await tx.statement<Example>(
      'examples_of_aside',
      `select submission_id, received_at, format, body, '' as text from (${ASIDE}) a where a.id = $2 order by received_at desc limit $3`,
      [tx.workspaceId, id, EXAMPLES],
    );
    return {
      question: `Did a person send ${count === 1 ? 'this' : `these ${count}`}?`,
      story: `They came through ${subject} and look as if a machine had sent them. Nothing was written.`,
      consequence: 'Release: they are routed like any other. Left: they stay aside, and stay readable.',
      choices: [LEAVE, { action: 'release', label: 'Release', key: 'r' }],
      things: [{ kind: 'intake', id: intake, name: subject }],
      examples: rows.map(exampleOf),
      view: { as: 'plain' },
    };
  }

  async decide(tx: WorkspaceTx, { id }: AsideLine, { action }: Verdict): Promise<string> {
    if (action !== 'release') throw new ProblemError('refused', 'These can be released, or left aside.');
    const rows = await tx.statement<{ submission_id: string }>(
      'submissions_aside',
      `select submission_id from (${ASIDE}) a where a.id = $2`,
      [tx.workspaceId, id],
    );
    const released = await this.queue.runAgain(
      tx,
      rows.map((row) => row.submission_id),
    );
    return `${counted(released, 'submission')} ${released === 1 ? 'is' : 'are'} released.`;
  }
}
