import type { WorkspaceTx } from '../platform/database/database';
import { Values } from '../platform/database/values';
import type { ListSetting } from '../records/lists/record-lists.service';
import { narrowedRecords, narrowedSubmissions } from './narrowing/narrowing';
import { joinedRecords, joinedSubmissions } from './narrowing/split';
import type { ReportWish } from './report-wish';
import type { RecordsWish } from './sources-sql';

/** What a statement of the report is made from, and its parameters. */
interface Statement {
  wish: RecordsWish;
  values: Values;
}

/** For statements about contacts and leads, by their journeys' steps `s`. */
export function aboutPeople(
  tx: WorkspaceTx,
  { from, to, narrowing, split }: ReportWish,
  setting: ListSetting,
): Statement {
  const values = new Values([tx.workspaceId, from, to]);
  const narrowed = narrowedRecords(narrowing, 's.record_id', setting, values);
  return { values, wish: { narrowed, split: split ? joinedRecords(split, 's.record_id', values) : '' } };
}

/** For statements about submissions `v`. */
export function aboutSubmissions(
  tx: WorkspaceTx,
  { from, to, narrowing, split }: ReportWish,
  setting: ListSetting,
): Statement {
  const values = new Values([tx.workspaceId, from, to]);
  const narrowed = narrowedSubmissions(narrowing, 'v.id', setting, values);
  return { values, wish: { narrowed, split: split ? joinedSubmissions(split, 'v.id', values) : '' } };
}
