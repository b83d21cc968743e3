import type { RecordKind } from '@haycart/core';
import type { Values } from '../../platform/database/values';
import { whereSql, type ListSetting } from '../../records/lists/record-lists.service';
import { cameToSql, type CameTo } from './furthest-stage';

/** What a report is limited to. A record must meet all of it. */
export interface Narrowing {
  /** The key of an intake: its submissions, and the records that they touched. */
  intake?: string | undefined;
  /** Conditions as JSON, by kind of record: records that meet one, and those linked with them. */
  filters: Partial<Record<RecordKind, string>>;
  /** Deals by how far they came. */
  cameTo?: CameTo | undefined;
}

export function isNarrowed({ intake, filters, cameTo }: Narrowing): boolean {
  return intake !== undefined || cameTo !== undefined || Object.keys(filters).length > 0;
}

/** Returns clauses on the id of a record, each beginning with `and`; `$1` is the workspace. @throws ProblemError for a wrong filter. */
export function narrowedRecords(narrowing: Narrowing, id: string, setting: ListSetting, values: Values): string {
  const { intake, cameTo } = narrowing;
  const far = cameTo ? `and ${id} in (${cameToSql(cameTo, values)})` : '';
  const through =
    intake === undefined
      ? ''
      : `and ${id} in (select t.record_id from touch t join submission m on m.workspace_id = t.workspace_id and m.id = t.visit_id
         where t.workspace_id = $1 and m.intake_id = ${intakeId(intake, values)})`;
  return `${far} ${through} ${linked(narrowing, setting, values)
    .map((ids) => `and ${id} in (${ids})`)
    .join(' ')}`;
}

/** Returns the same clauses on the id of a submission: it touched such a record. */
export function narrowedSubmissions(narrowing: Narrowing, id: string, setting: ListSetting, values: Values): string {
  const { intake } = narrowing;
  const through =
    intake === undefined
      ? ''
      : `and ${id} in (select m.id from submission m where m.workspace_id = $1 and m.intake_id = ${intakeId(intake, values)})`;
  return `${through} ${linked(narrowing, setting, values)
    .map((ids) => `and ${id} in (select t.visit_id from touch t where t.workspace_id = $1 and t.record_id in (${ids}))`)
    .join(' ')}`;
}

function intakeId(key: string, values: Values): string {
  return `(select i.id from intake i where i.workspace_id = $1 and i.key = ${values.add(key, 'text')})`;
}

/** Returns a query for each filter: the ids of records that meet it, and of records linked with them. For a company also the deals and leads of its contacts. */
function linked({ filters }: Narrowing, setting: ListSetting, values: Values): string[] {
  return (Object.entries(filters) as [RecordKind, string][]).map(([kind, filter]) => {
    const near = `with met as (select r.id from ${kind} r where ${whereSql(kind, { filter }, setting, values)}),
        near as (select id from met
          union select l.from_id from met join record_link l on l.workspace_id = $1 and l.to_id = met.id
          union select l.to_id from met join record_link l on l.workspace_id = $1 and l.from_id = met.id)
        select id from near`;
    if (kind !== 'company') return near;
    return `${near} union select l.from_id from near join record_link l on l.workspace_id = $1 and l.to_id = near.id and l.to_kind = 'contact'`;
  });
}
