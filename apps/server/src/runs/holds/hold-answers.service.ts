import { Injectable } from '@nestjs/common';
import type { GivenAnswer } from '@haycart/core';
import type { WorkspaceTx } from '../../platform/database/database';

/** What was answered, by the place of the hold in its route. */
export type HoldAnswers = Readonly<Record<number, GivenAnswer>>;

/** What was said of a submission in a route. */
export interface NewHoldAnswer extends GivenAnswer {
  submission: string;
  route: string;
  hold: number;
}

/** What those said who were asked before a run writes anything. */
@Injectable()
export class HoldAnswersService {
  /** What was said of some submissions, by `submission route`. */
  async of(tx: WorkspaceTx, submissions: readonly string[]): Promise<Map<string, HoldAnswers>> {
    const given = new Map<string, HoldAnswers>();
    if (!submissions.length) return given;
    const rows = await tx.statement<NewHoldAnswer>(
      'hold_answers',
      `select submission_id as submission, route_id as route, hold, what as "for", approved, note, by from hold_answer
       where workspace_id = $1 and submission_id = any($2::uuid[])`,
      [tx.workspaceId, submissions],
    );
    for (const { submission, route, hold, ...said } of rows) {
      const key = `${submission} ${route}`;
      given.set(key, { ...given.get(key), [hold]: said });
    }
    return given;
  }

  /** Keeps what was said of some submissions; who says something else later is heard. */
  async give(tx: WorkspaceTx, answers: readonly NewHoldAnswer[]): Promise<void> {
    const column = <Key extends keyof NewHoldAnswer>(key: Key) => answers.map((answer) => answer[key]);
    await tx.statement(
      'give_hold_answers',
      `insert into hold_answer (workspace_id, submission_id, route_id, hold, what, approved, note, by, at)
       select $1, a.*, now() from unnest($2::uuid[], $3::uuid[], $4::int[], $5::text[], $6::bool[], $7::text[], $8::text[]) a
       on conflict (workspace_id, submission_id, route_id, hold) do update set what = excluded.what, approved = excluded.approved, note = excluded.note, by = excluded.by, at = excluded.at`,
      [
        tx.workspaceId,
        column('submission'),
        column('route'),
        column('hold'),
        column('for'),
        column('approved'),
        column('note'),
        column('by'),
      ],
    );
    await tx.statement(
      'close_asked',
      `update asked set open = false from unnest($2::uuid[], $3::uuid[], $4::int[]) a (submission_id, route_id, hold)
       where asked.workspace_id = $1 and asked.open and asked.submission_id = a.submission_id and asked.route_id = a.route_id and asked.hold = a.hold`,
      [tx.workspaceId, column('submission'), column('route'), column('hold')],
    );
  }
}
