import { Inject, Injectable } from '@nestjs/common';
import type { RecordKind } from '@haycart/core';
import type { AnswerClock, RecordSheet } from '@haycart/api';
import { Database } from '../../platform/database/database';
import { ProblemError } from '../../platform/errors/problem-error';
import { isId } from '../../platform/paging';
import { DestinationService } from '../../destination/destination.service';
import { clockSql } from '../assignments/clock-sql';
import { HISTORY_SQL, historyEntry, type HistoryRow } from './record-history';
import { CONSENTS_SQL } from '../consents/consents-sql';
import { survivorsOf } from '../merged-records';
import { LINKS_SQL, recordShape, type LinkRow } from '../record-shapes';
import { TOUCHES_SQL, touchShape, type TouchRow } from './touches';
import type { RecordRow } from '../record-rows';

type Parts = Omit<RecordSheet, 'record' | 'history' | 'touches'> & {
  record: RecordRow | null;
  links: LinkRow[];
  history: HistoryRow[];
  touches: TouchRow[];
  answer: AnswerClock | null;
  revision: number;
};

/** Everything that a record’s page shows, read in one round trip however much there is. */
@Injectable()
export class RecordSheetService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(DestinationService) private readonly destinations: DestinationService,
  ) {}

  async sheet(workspaceId: string, kind: RecordKind, id: string): Promise<RecordSheet> {
    const [parts] = isId(id)
      ? await this.database.inWorkspaceOnce<Parts>(workspaceId, `${kind}_sheet`, SHEETS[kind], [id])
      : [];
    if (!parts?.record) {
      const survivors = isId(id) ? await this.database.inWorkspace(workspaceId, (tx) => survivorsOf(tx, [id])) : null;
      const survivor = survivors?.get(id);
      if (survivor) return this.sheet(workspaceId, kind, survivor);
      throw new ProblemError('not-found', `There is no such ${kind}.`);
    }
    const { record, links, history, touches, revision, answer, ...rest } = parts;
    const destination =
      this.destinations.kept(workspaceId, revision) ??
      (await this.database.inWorkspace(workspaceId, (tx) => this.destinations.load(tx)));
    const row = { ...record, answer, created_at: new Date(record.created_at), updated_at: new Date(record.updated_at) };
    return {
      record: recordShape(kind, row, links),
      history: history.map((entry) => historyEntry(entry, kind, id, destination)),
      touches: touches.map((touch) => touchShape(touch, destination)),
      ...rest,
    };
  }
}

const list = (from: string) => `(select coalesce(jsonb_agg(to_jsonb(x)), '[]') from (${from}) x)`;

/** The files that people kept with the record, and those that came with the submissions that wrote or touched it. */
const FILES = `select id, name, type, size, by, at, null as submission from record_file where workspace_id = $1 and record_id = $2
  union all select f.id, f.name, f.type, octet_length(f.bytes), coalesce(k.email, ''), s.received_at, f.submission_id from submission_file f
    join submission s on s.workspace_id = f.workspace_id and s.id = f.submission_id
    left join submission_search k on k.workspace_id = f.workspace_id and k.submission_id = f.submission_id
    where f.workspace_id = $1 and f.submission_id in (select a.submission_id from run_attempt a where a.workspace_id = $1 and a.taken_back_by is null and a.id in (
      select cause_id from record_change where workspace_id = $1 and record_id = $2 and cause_kind = 'run'
      union select attempt_id from touch where workspace_id = $1 and record_id = $2))
  order by at desc limit 500`;

/** What routes sent about the record, and about those that became one with it. */
const SENT = `select o.id, o.kind, o.target as "to", o.state, o.created_at as at, left(coalesce(o.body ->> 'subject', o.body ->> 'text', ''), 200) as says, o.last_error as why, 'the route ' || t.name as by
  from outbox o join route t on t.workspace_id = o.workspace_id and t.id = o.route_id
  where o.workspace_id = $1 and (o.record_id = $2 or o.record_id in (select absorbed_id from record_merge where workspace_id = $1 and survivor_id = $2 and undone_at is null))
  order by o.created_at desc, o.id desc limit 200`;

function sheetSql(kind: RecordKind): string {
  const own = 'workspace_id = $1 and record_id = $2';
  const sql = `select
    (select revision from workspace where id = $1) as revision,
    (select to_jsonb(r) from ${kind} r where r.workspace_id = $1 and r.id = $2) as record,
    ${list(LINKS_SQL.replaceAll('any($2::uuid[])', '$2'))} as links,
    ${list(HISTORY_SQL)} as history,
    ${clockSql('$2')} as answer,
    ${list(TOUCHES_SQL)} as touches,
    ${list(`select id, title, text, by, at, changed_at as "changedAt" from note where ${own} order by at desc limit 500`)} as notes,
    ${list(`select id, text, body, priority, owner, coalesce(to_char(due_at at time zone 'utc', 'YYYY-MM-DD"T"HH24:MI:SS"Z"'), due::text) as due, by, at, done_at as "doneAt", done_by as "doneBy" from task where ${own} order by done_at nulls first, coalesce(due_at, due::timestamptz + interval '1 day') nulls last, at limit 500`)} as tasks,
    ${list(FILES)} as files,
    ${list(CONSENTS_SQL)} as consents,
    ${list(SENT)} as sent
    from entered`;
  return sql.replaceAll('$1', '$1::uuid').replaceAll('$2', '$2::uuid');
}

const SHEETS: Record<RecordKind, string> = {
  contact: sheetSql('contact'),
  company: sheetSql('company'),
  lead: sheetSql('lead'),
  deal: sheetSql('deal'),
};
