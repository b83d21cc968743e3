import { Inject, Injectable } from '@nestjs/common';
import {
  fieldOf,
  readPayload,
  showRecordValue,
  whoSent,
  type BodyFormat,
  type MatchAnswer,
  type Plan,
  type PlannedWrite,
} from '@haycart/core';
import type { WhichRecord } from '@haycart/api';
import type { Caller } from '../../../platform/auth/caller';
import type { WorkspaceTx } from '../../../platform/database/database';
import { ProblemError } from '../../../platform/errors/problem-error';
import { MatchAnswersService } from '../../../identity/match-answers.service';
import { RecordSides } from '../../../identity/record-sides.service';
import { RecordsService } from '../../../records/records.service';
import { SubmissionQueue } from '../../../submissions/submission-queue';
import { DestinationService } from '../../../destination/destination.service';
import { PeopleService } from '../../../workspaces/people.service';
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

interface WhichLine extends WaitingLine {
  submission: string;
  route: string;
  plan: Plan;
}

const KIND: KindOfLine = {
  kind: 'which-record',
  title: 'Which record?',
  rank: 10,
  about: ({ subject }) => subject,
};
const WAITING = `from run r join submission s on s.workspace_id = r.workspace_id and s.id = r.submission_id
  left join decision left_alone on left_alone.workspace_id = $1 and left_alone.id = 'which-record.' || r.attempt_id
  where r.workspace_id = $1 and r.outcome = 'held' and r.reason_code = 'which-record' and s.state = 'routed' and left_alone.at is null`;

/** Runs that wait for a person to say which record their submission means. */
@Injectable()
export class WhichRecordDecisions implements DecisionKind<WhichLine> {
  constructor(
    @Inject(MatchAnswersService) private readonly answers: MatchAnswersService,
    @Inject(RecordSides) private readonly sides: RecordSides,
    @Inject(RecordsService) private readonly records: RecordsService,
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(SubmissionQueue) private readonly queue: SubmissionQueue,
  ) {}

  async lines(tx: WorkspaceTx, { most, id: only }: AskedLines): Promise<WhichLine[]> {
    const rows = await tx.statement<{
      attempt: string;
      submission: string;
      route: string;
      summary: string;
      plan: Plan;
      at: Date;
      format: BodyFormat;
      body: Buffer;
    }>(
      'which_record_decisions',
      `select r.attempt_id as attempt, r.submission_id as submission, r.route_id as route, r.summary, (select a.plan from run_attempt a where a.workspace_id = r.workspace_id and a.id = r.attempt_id) as plan, s.received_at as at, s.format, s.body
       ${WAITING} and ($3::text is null or 'which-record.' || r.attempt_id = $3) order by s.received_at limit $2`,
      [tx.workspaceId, most, only ?? null],
    );
    return rows.map(({ attempt, submission, route, summary, plan, at, format, body }) => {
      const read = readPayload(format, body);
      const { who, email } = read.ok ? whoSent(read.payload) : { who: '', email: '' };
      return {
        ...lineOf(KIND, {
          // Of the attempt: what was left as it is and asks again when it ran again is asked.
          id: `which-record.${attempt}`,
          subject: who || email || 'Somebody',
          detail: summary,
          count: 1,
          at: at.toISOString(),
          like: `which-record ${route}`,
        }),
        submission,
        route,
        plan,
      };
    });
  }

  async count(tx: WorkspaceTx): Promise<number> {
    const [row] = await tx.statement<{ n: number }>(
      'which_record_count',
      `select count(*)::int as n from (select ${WAITING} limit $2) w`,
      [tx.workspaceId, MOST_COUNTED],
    );
    return row!.n;
  }

  async details(tx: WorkspaceTx, line: WhichLine): Promise<DecisionDetails> {
    const asked = askedWrite(line.plan);
    const candidates = asked.match.candidates ?? [];
    return {
      question: `Which record is ${line.subject}?`,
      story: line.detail,
      consequence:
        'The submission goes through its route again, as you say, and whoever comes like this is learned from.',
      choices: [
        ...(candidates.length ? [{ action: 'same', label: 'Same', key: 's' }] : []),
        { action: 'new-record', label: 'A new one', key: 'n' },
        { action: 'no-record', label: 'Write none', key: 'o' },
        LEAVE,
      ],
      things: [],
      examples: [{ submission: line.submission, who: line.subject, at: line.at, text: line.detail }],
      view: { as: 'which', ...(await this.#which(tx, line, asked, candidates)) },
    };
  }

  async decide(tx: WorkspaceTx, line: WhichLine, verdict: Verdict, by: Caller['by']): Promise<string> {
    const asked = askedWrite(line.plan);
    const answer = answerOf(verdict, asked.match.candidates ?? []);
    const chosen = 'record' in answer ? answer.record : null;
    const probability = asked.match.candidates?.find(({ id }) => chosen === null || id === chosen)?.probability ?? null;
    const { submission, route } = line;
    await this.answers.give(
      tx,
      [{ submission, route, write: asked.as, answer, probability }],
      await this.people.nameOf(tx, by),
    );
    await this.queue.runThrough(tx, [submission], route);
    return 'It goes through the route again, as you said.';
  }

  async #which(
    tx: WorkspaceTx,
    { submission, route }: WhichLine,
    asked: PlannedWrite,
    candidates: NonNullable<PlannedWrite['match']['candidates']>,
  ): Promise<WhichRecord> {
    const destination = await this.destinations.load(tx);
    const survivors = await this.records.survivors(
      tx,
      candidates.map(({ id }) => id),
    );
    const present = candidates.map((candidate) => ({ ...candidate, id: survivors.get(candidate.id) ?? candidate.id }));
    const known = await this.records.byId(
      tx,
      asked.record,
      present.map(({ id }) => id),
    );
    const sides = await this.sides.of(tx, known, destination);
    return {
      submission,
      route,
      write: asked.as,
      kind: asked.record,
      came: (asked.match.came ?? []).map(({ field, value }) => {
        const definition = fieldOf(destination, asked.record, field);
        return { label: definition?.label ?? field, text: showRecordValue(destination, asked.record, field, value) };
      }),
      candidates: present.flatMap(({ id, probability, shares = [] }) => {
        const side = sides.find((one) => one.id === id);
        return side ? [{ ...side, probability, shares }] : [];
      }),
    };
  }
}

/** The write at which the run stopped to ask. */
function askedWrite({ writes }: Plan): PlannedWrite {
  return writes[writes.length - 1]!;
}

function answerOf({ action, record }: Verdict, shown: readonly { id: string }[]): MatchAnswer {
  if (action === 'new-record') return { create: true, apartFrom: shown.map(({ id }) => id) };
  if (action === 'no-record') return { skip: true };
  if (action === 'same' && record) return { record };
  throw new ProblemError('refused', 'Say which record is meant, or that it is a new one, or none.');
}
