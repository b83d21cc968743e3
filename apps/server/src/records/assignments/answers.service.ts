import { Injectable } from '@nestjs/common';
import type { AnswerLine } from '@haycart/api';
import type { WorkspaceTx } from '../../platform/database/database';
import { LATEST, OPEN_RECORDS } from './open-assignments';

interface Row {
  id: string;
  kind: AnswerLine['kind'];
  record: string;
  name: string;
  owner: string | null;
  at: Date;
  due: Date;
}

/** What waits for its first answer. */
@Injectable()
export class AnswersService {
  /** The next due first, then what is late with the latest first; `owner` null for everybody’s. */
  async open(tx: WorkspaceTx, owner: string | null, limit: number): Promise<AnswerLine[]> {
    const read = (which: string, way: 'asc' | 'desc', most: number) =>
      tx.statement<Row & Record<string, unknown>>(
        `answers_${way}`,
        `select a.id, r.kind, a.record_id as record, r.name, r.owner, a.at, a.due_at as due from assignment a join ${OPEN_RECORDS} on true
         where a.workspace_id = $1 and a.touched_at is null and a.due_at is not null and ${which} and ${LATEST} and ($2::text is null or r.owner = $2)
         order by a.due_at ${way}, a.id limit $3`,
        [tx.workspaceId, owner, most],
      );
    const next = await read('a.due_at >= now()', 'asc', limit);
    const late = next.length < limit ? await read('a.due_at < now()', 'desc', limit - next.length) : [];
    return [...next, ...late].map(({ at, due, ...row }) => ({ ...row, at: at.toISOString(), due: due.toISOString() }));
  }
}
