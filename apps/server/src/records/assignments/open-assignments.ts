/** Whether nobody else was given the record of an assignment `a` since: whoever touches it answers for the latest alone. */
export const LATEST = `not exists (select 1 from assignment l where l.workspace_id = a.workspace_id and l.record_id = a.record_id and (l.at, l.id) > (a.at, a.id))`;

/** The record `r` of an assignment `a`, where it is there and not closed. */
export const OPEN_RECORDS = `lateral (
  select 'deal' as kind, name, pipeline, owner from deal where workspace_id = $1 and id = a.record_id and status = 'open'
  union all select 'lead', name, pipeline, owner from lead where workspace_id = $1 and id = a.record_id and coalesce(status, 'open') = 'open'
  union all select 'contact', coalesce(full_name, email, phone, 'without a name'), null, owner from contact where workspace_id = $1 and id = a.record_id
  union all select 'company', name, null, owner from company where workspace_id = $1 and id = a.record_id) r`;
