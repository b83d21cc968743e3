import {
  changesBetween,
  emptyDiff,
  fieldOf,
  splitByRecord,
  type Destination,
  type Plan,
  type RecordKind,
  type RecordsDiff,
} from '@haycart/core';
import type { HistoryEntry } from '@haycart/api';

/** One change of a record as the database answers it. */
export interface HistoryRow {
  id: string;
  at: Date | string;
  cause_kind: HistoryEntry['cause']['kind'];
  cause_id: string;
  diff: RecordsDiff;
  writes: Plan['writes'] | null;
  submission_id: string | null;
  /** The intake that the submission came through, and the page that it was sent from. */
  intake: string | null;
  page: string | null;
  /** Whether the submission is a row of a file. */
  imported: boolean;
  label: string;
  edit_text: string | null;
  taken_back: boolean;
}

/** Nothing that was done to a record. */
const NO_DIFF = JSON.stringify(emptyDiff());

/** The changes of the record `$2`, latest first, with what caused each; and submissions that touched it and changed nothing. */
export const HISTORY_SQL = `select * from (
  (select c.id, c.at, c.cause_kind, c.cause_id, c.diff, r.plan -> 'writes' as writes, r.submission_id, i.name as intake, s.visit ->> 'page' as page, coalesce(i.kind = 'sheet', false) as imported,
    coalesce(t.name, case when c.cause_kind = 'take-back' then coalesce(e.taken_back_by, m.undone_by) else coalesce(e.by, m.by) end, p.name, '') as label,
    e.text as edit_text, e.taken_back_at is not null as taken_back
  from record_change c
  left join run_attempt r on r.workspace_id = c.workspace_id and r.id = c.cause_id and c.cause_kind = 'run'
  left join submission s on s.workspace_id = r.workspace_id and s.id = r.submission_id
  left join intake i on i.workspace_id = s.workspace_id and i.id = s.intake_id
  left join route t on t.workspace_id = r.workspace_id and t.id = r.route_id
  left join record_edit e on e.workspace_id = c.workspace_id and e.id = c.cause_id and c.cause_kind <> 'run'
  left join lateral (select by, undone_by from record_merge m where m.workspace_id = c.workspace_id and m.cause_id = c.cause_id limit 1) m on true
  left join person p on p.workspace_id = c.workspace_id and p.id = c.cause_id and c.cause_kind = 'person'
  where c.workspace_id = $1 and c.record_id = $2 order by c.at desc, c.id desc limit 500)
  union all
  (select u.id, v.at, 'run', u.attempt_id, '${NO_DIFF}'::jsonb, null, r.submission_id, i.name, s.visit ->> 'page', coalesce(i.kind = 'sheet', false), t.name, null, false
  from touch u join visit v on v.workspace_id = u.workspace_id and v.id = u.visit_id
  join run_attempt r on r.workspace_id = u.workspace_id and r.id = u.attempt_id and r.taken_back_by is null
  join submission s on s.workspace_id = r.workspace_id and s.id = r.submission_id
  join intake i on i.workspace_id = s.workspace_id and i.id = s.intake_id
  join route t on t.workspace_id = r.workspace_id and t.id = r.route_id
  where u.workspace_id = $1 and u.record_id = $2
    and not exists (select 1 from record_change c where c.workspace_id = $1 and c.record_id = $2 and c.cause_id = u.attempt_id)
  order by v.at desc, u.id desc limit 500)
  ) h order by at desc, id desc limit 500`;

/** What a change did to one record, with the trace of each value that a run wrote. */
export function historyEntry(row: HistoryRow, kind: RecordKind, id: string, destination: Destination): HistoryEntry {
  const part = splitByRecord(row.diff).get(id) ?? emptyDiff();
  const made = part.created[id] ?? null;
  const fields = made ? changesBetween({}, made.values) : (part.changed[id]?.fields ?? {});
  const traces = row.writes?.find((write) => write.id === id)?.fields ?? [];
  return {
    id: row.id,
    at: new Date(row.at).toISOString(),
    cause: {
      kind: row.imported ? 'import' : row.cause_kind,
      id: row.cause_id,
      label: row.label,
      ...(row.submission_id ? { submission: row.submission_id } : {}),
      ...(row.intake ? { intake: row.intake } : {}),
      ...(row.page ? { page: row.page } : {}),
      ...(row.edit_text && row.cause_kind === 'person'
        ? { edit: { text: row.edit_text, takenBack: row.taken_back } }
        : {}),
    },
    diff: row.diff,
    values: Object.entries(fields).map(([field, { before, after }]) => ({
      field,
      label: fieldOf(destination, kind, field)?.label ?? field,
      before,
      after,
      trace: traces.find((trace) => trace.field === field)?.trace ?? null,
    })),
  };
}
