import { Inject, Injectable } from '@nestjs/common';
import { readPayload, whoSent, wouldDo, type BodyFormat, type Plan } from '@haycart/core';
import type { Caller } from '../../../platform/auth/caller';
import type { WorkspaceTx } from '../../../platform/database/database';
import { ProblemError } from '../../../platform/errors/problem-error';
import { HoldAnswersService } from '../../../runs/holds/hold-answers.service';
import { SubmissionQueue } from '../../../submissions/submission-queue';
import { PeopleService } from '../../../workspaces/people.service';
import {
  LEAVE,
  lineOf,
  MOST_COUNTED,
  type AskedLines,
  type DecisionDetails,
  type DecisionKind,
  type KindOfLine,
  type Verdict,
  type WaitingLine,
} from '../decision-kind';
import { exampleOf, type Example } from '../examples';

interface ApprovalLine extends WaitingLine {
  submission: string;
  route: { id: string; name: string };
  plan: Plan;
}

const KIND: KindOfLine = {
  kind: 'approval',
  title: 'Approve?',
  rank: 5,
  about: ({ subject, detail }) => `${subject}: ${detail}`,
};
const WAITING = `from run r join submission s on s.workspace_id = r.workspace_id and s.id = r.submission_id
  left join decision left_alone on left_alone.workspace_id = $1 and left_alone.id = 'approval.' || r.attempt_id
  where r.workspace_id = $1 and r.outcome = 'held' and r.reason_code = 'approval' and s.state = 'routed' and left_alone.at is null`;

/** Runs that write nothing until somebody says yes. */
@Injectable()
export class ApprovalDecisions implements DecisionKind<ApprovalLine> {
  constructor(
    @Inject(HoldAnswersService) private readonly answers: HoldAnswersService,
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(SubmissionQueue) private readonly queue: SubmissionQueue,
  ) {}

  async lines(tx: WorkspaceTx, { most, id: only }: AskedLines): Promise<ApprovalLine[]> {
    const rows = await tx.statement<{
      attempt: string;
      submission: string;
      route: string;
      name: string;
      plan: Plan;
      at: Date;
      format: BodyFormat;
      body: Buffer;
    }>(
      'approval_decisions',
      `select w.*, t.name from (
         select r.attempt_id as attempt, r.submission_id as submission, r.route_id as route,
           (select a.plan from run_attempt a where a.workspace_id = r.workspace_id and a.id = r.attempt_id) as plan, s.received_at as at, s.format, s.body
         ${WAITING} and ($3::text is null or 'approval.' || r.attempt_id = $3) order by s.received_at limit $2
       ) w join route t on t.workspace_id = $1 and t.id = w.route order by w.at`,
      [tx.workspaceId, most, only ?? null],
    );
    return rows.map(({ attempt, submission, route, name, plan, at, format, body }) => {
      const read = readPayload(format, body);
      const { who, email } = read.ok ? whoSent(read.payload) : { who: '', email: '' };
      return {
        ...lineOf(KIND, {
          // Of the attempt: what was left as it is and asks again when it ran again is asked.
          id: `approval.${attempt}`,
          subject: who || email || 'Somebody',
          detail: plan.reason!.text,
          count: 1,
          at: at.toISOString(),
          like: `approval ${route}`,
        }),
        submission,
        route: { id: route, name },
        plan,
      };
    });
  }

  async count(tx: WorkspaceTx): Promise<number> {
    const [row] = await tx.statement<{ n: number }>(
      'approval_count',
      `select count(*)::int as n from (select ${WAITING} limit $2) w`,
      [tx.workspaceId, MOST_COUNTED],
    );
    return row!.n;
  }

  async details(tx: WorkspaceTx, { submission, route, subject, detail, plan }: ApprovalLine): Promise<DecisionDetails> {
    const rows = await tx.statement<Example>(
      'example_of_approval',
      `select id as submission_id, received_at, format, body, '' as text from submission where workspace_id = $1 and id = $2`,
      [tx.workspaceId, submission],
    );
    return {
      question: `May ${route.name} write what ${subject} sent?`,
      story: detail,
      consequence: 'Yes: all of it is written and sent. No: nothing is, and the run says who said so, and why.',
      choices: [{ action: 'approve', label: 'Yes', key: 'y' }, { action: 'deny', label: 'No', key: 'n' }, LEAVE],
      things: [{ kind: 'route', ...route }],
      examples: rows.map(exampleOf),
      view: { as: 'approval', would: wouldDo(plan) },
    };
  }

  async decide(
    tx: WorkspaceTx,
    { submission, route, plan }: ApprovalLine,
    { action, note = '' }: Verdict,
    by: Caller['by'],
  ): Promise<string> {
    if (action !== 'approve' && action !== 'deny') throw new ProblemError('refused', 'Say yes or no, or leave it.');
    const approved = action === 'approve';
    const hold = plan.reason?.hold ?? 0;
    const name = await this.people.nameOf(tx, by);
    await this.answers.give(tx, [
      { for: 'approval', submission, route: route.id, hold, approved, note: note.trim(), by: name },
    ]);
    await this.queue.runThrough(tx, [submission], route.id);
    return approved ? 'It goes through the route, and is written.' : 'Nothing of it is written.';
  }
}
