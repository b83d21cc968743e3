import { Inject, Injectable } from '@nestjs/common';
import type { MatchAnswer } from '@haycart/core';
import type { WorkspaceTx } from '../platform/database/database';
import { RecordsService } from '../records/records.service';
import { LookAlikesStore, type Apart } from './look-alikes.store';

/** Whom a submission means, as a person said. */
export interface GivenAnswer {
  submission: string;
  route: string;
  write: string;
  answer: MatchAnswer;
  probability: number | null;
}

/** What people answered who were asked which record a submission means; kept, so that running again asks nobody twice. */
@Injectable()
export class MatchAnswersService {
  constructor(
    @Inject(RecordsService) private readonly records: RecordsService,
    @Inject(LookAlikesStore) private readonly pairs: LookAlikesStore,
  ) {}

  /** The answers for some submissions, by `submission route`; a record that became part of another is that one. */
  async of(tx: WorkspaceTx, submissions: readonly string[]): Promise<Map<string, Record<string, MatchAnswer>>> {
    const answers = new Map<string, Record<string, MatchAnswer>>();
    if (!submissions.length) return answers;
    const rows = await tx.statement<{ submission_id: string; route_id: string; write: string; answer: MatchAnswer }>(
      'match_answers',
      'select submission_id, route_id, write, answer from match_answer where workspace_id = $1 and submission_id = any($2::uuid[])',
      [tx.workspaceId, submissions],
    );
    const chosen = rows.flatMap(({ answer }) => ('record' in answer ? answer.record : []));
    const survivors = await this.records.survivors(tx, chosen);
    for (const { submission_id: submission, route_id: route, write, answer } of rows) {
      const key = `${submission} ${route}`;
      const present = 'record' in answer ? { record: survivors.get(answer.record) ?? answer.record } : answer;
      answers.set(key, { ...answers.get(key), [write]: present });
    }
    return answers;
  }

  /** Records that were made because a person said they are none of those they were shown: not to be asked again. */
  async keepApart(tx: WorkspaceTx, apart: readonly Apart[]): Promise<void> {
    for (const one of apart) await this.pairs.keepApart(tx, { ...one, by: 'whoever was asked about the submission' });
  }

  async give(tx: WorkspaceTx, answers: readonly GivenAnswer[], by: string): Promise<void> {
    if (!answers.length) return;
    await tx.statement(
      'give_match_answers',
      `insert into match_answer (workspace_id, submission_id, route_id, write, answer, probability, by, at)
       select $1::uuid, s, r, w, a::jsonb, p, $7, now() from unnest($2::uuid[], $3::uuid[], $4::text[], $5::text[], $6::float8[]) g (s, r, w, a, p)
       on conflict (workspace_id, submission_id, route_id, write) do update set answer = excluded.answer, probability = excluded.probability, by = excluded.by, at = excluded.at`,
      [
        tx.workspaceId,
        answers.map(({ submission }) => submission),
        answers.map(({ route }) => route),
        answers.map(({ write }) => write),
        answers.map(({ answer }) => JSON.stringify(answer)),
        answers.map(({ probability }) => probability),
        by,
      ],
    );
  }
}
