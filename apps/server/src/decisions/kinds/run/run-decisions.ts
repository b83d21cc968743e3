import { Inject, Injectable } from '@nestjs/common';
import { counted } from '@haycart/core';
import type { DecisionShape } from '@haycart/api';
import type { WorkspaceTx } from '../../../platform/database/database';
import { ProblemError } from '../../../platform/errors/problem-error';
import { CatchingUpService } from '../../../runs/catching-up/catching-up.service';
import { SubmissionQueue } from '../../../submissions/submission-queue';
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

interface RunLine extends WaitingLine {
  kind: RunKind;
  route: string;
}

type RunKind = 'failed' | 'held' | 'paused';

const KINDS: Record<RunKind, KindOfLine> = {
  failed: {
    kind: 'failed',
    title: 'Failed',
    rank: 30,
    isFailure: true,
    about: ({ subject, detail }) => `${subject}: ${detail}`,
  },
  held: { kind: 'held', title: 'Held', rank: 50, about: ({ subject, detail }) => `${subject}: ${detail}` },
  paused: { kind: 'paused', title: 'Route paused', rank: 60, about: ({ subject }) => subject },
};

/** Runs that failed or wait, by the decision that they wait for; those that go again are left out. */
const WAIT = `r.workspace_id = $1 and r.waits_for is not null and s.state = 'routed'`;
const RUNS = `run r join submission s on s.workspace_id = r.workspace_id and s.id = r.submission_id where ${WAIT}`;
const EXAMPLES = 20;

/** Runs that failed, that are held, and that wait for a paused route: those of one route with one reason together. */
@Injectable()
export class RunDecisions implements DecisionKind<RunLine> {
  constructor(
    @Inject(CatchingUpService) private readonly catchingUp: CatchingUpService,
    @Inject(SubmissionQueue) private readonly queue: SubmissionQueue,
  ) {}

  async lines(tx: WorkspaceTx, { most, id: only }: AskedLines): Promise<RunLine[]> {
    const rows = await tx.statement<{
      id: string;
      kind: RunKind;
      route: string;
      name: string;
      summary: string;
      count: number;
      at: Date;
    }>(
      'run_decisions',
      `select g.*, t.name from (
         select r.waits_for as id, split_part(r.waits_for, '.', 1) as kind, r.route_id as route, r.summary, count(*)::int as count, max(s.received_at) as at
         from run r join submission s on s.workspace_id = r.workspace_id and s.id = r.submission_id
         left join decision left_alone on left_alone.workspace_id = $1 and left_alone.id = r.waits_for
         where ${WAIT} and (left_alone.at is null or r.finished_at > left_alone.at) and ($3::text is null or r.waits_for = $3) group by 1, 2, 3, 4
       ) g join route t on t.workspace_id = $1 and t.id = g.route order by at desc limit $2`,
      [tx.workspaceId, most, only ?? null],
    );
    return rows.map(({ id, kind, route, name, summary, count, at }) => ({
      ...lineOf(KINDS[kind], {
        id,
        subject: name,
        detail: kind === 'paused' ? 'The route is paused' : summary,
        count,
        at: at.toISOString(),
        like: `${kind} ${route}`,
      }),
      kind,
      route,
    }));
  }

  async count(tx: WorkspaceTx): Promise<number> {
    const [row] = await tx.statement<{ n: number }>(
      'run_decision_count',
      // From one to the next by the index, so that it takes as long as there are decisions, however many runs wait for each; a
      // subquery of one row, since an "exists" would be joined with all of them.
      `with recursive waited_for (id) as (
         select min(waits_for) from run where workspace_id = $1 and waits_for is not null
         union all
         select (select min(waits_for) from run where workspace_id = $1 and waits_for > w.id) from waited_for w where w.id is not null
       )
       select count(*)::int as n from (
         select 1 from waited_for w left join decision left_alone on left_alone.workspace_id = $1 and left_alone.id = w.id
         where w.id is not null and (
           select 1 from ${RUNS} and r.waits_for = w.id and r.finished_at > coalesce(left_alone.at, '-infinity') limit 1) = 1 limit $2) g`,
      [tx.workspaceId, MOST_COUNTED],
    );
    return row!.n;
  }

  async details(tx: WorkspaceTx, line: RunLine): Promise<DecisionDetails> {
    return {
      ...runWords(line),
      choices: [
        line.kind === 'paused'
          ? { action: 'resume', label: 'Resume', key: 'r' }
          : { action: 'run-again', label: 'Run again', key: 'r' },
        LEAVE,
      ],
      things: [{ kind: 'route', id: line.route, name: line.subject }],
      examples: await this.#examples(tx, line.id),
      view: { as: 'plain' },
    };
  }

  async decide(tx: WorkspaceTx, { id, kind, route, subject }: RunLine, { action }: Verdict): Promise<string> {
    if (action === 'resume' && kind === 'paused') {
      await this.catchingUp.resume(tx, route);
      return `${subject} runs again, beginning with what waits.`;
    }
    if (action !== 'run-again' || kind === 'paused')
      throw new ProblemError('refused', 'These runs can be run again, or left.');
    const rows = await tx.statement<{ submission_id: string }>(
      'submissions_of_run_decision',
      `select r.submission_id from ${RUNS} and r.waits_for = $2`,
      [tx.workspaceId, id],
    );
    const queued = await this.queue.runThrough(
      tx,
      rows.map((row) => row.submission_id),
      route,
    );
    return `${counted(queued, 'submission')} ${queued === 1 ? 'goes' : 'go'} through ${subject} again.`;
  }

  async #examples(tx: WorkspaceTx, id: string): Promise<DecisionShape['examples']> {
    const rows = await tx.statement<Example>(
      'examples_of_run_decision',
      `select r.submission_id, s.received_at, s.format, s.body, r.summary as text from ${RUNS} and r.waits_for = $2 order by s.received_at desc limit $3`,
      [tx.workspaceId, id, EXAMPLES],
    );
    return rows.map(exampleOf);
  }
}

/** What a decision about runs says. */
export function runWords({ kind, subject, detail, count }: Pick<RunLine, 'kind' | 'subject' | 'detail' | 'count'>) {
  if (kind === 'paused')
    return {
      question: `${counted(count, 'submission')} ${count === 1 ? 'waits' : 'wait'} for ${subject}`,
      story: 'The route is paused. Nothing is lost: what waits goes on when the route is resumed.',
      consequence: 'Resume: the route runs, beginning with what waits.',
    };
  const what = counted(count, 'run');
  return {
    question:
      kind === 'failed' ? `${what} of ${subject} failed` : `${what} of ${subject} ${count === 1 ? 'waits' : 'wait'}`,
    story: detail,
    consequence: 'Run again: with the present version of the route. Left: not asked again unless more comes.',
  };
}
