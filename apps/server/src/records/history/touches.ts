import type { TouchShape } from '@haycart/api';
import { sourceOfWay, type Destination, type Way } from '@haycart/core';

/** Of a row of `touch`: whether its run still stands. A touch of a run that was taken back does not count. */
const STILL_COUNTS = `not exists (select 1 from attempt of_touch where of_touch.workspace_id = touch.workspace_id and of_touch.id = touch.attempt_id and of_touch.taken_back_by is not null)`;

/** How many touches of a record are told. */
const TOLD = 500;

/** The touches of the record `$2`, the earliest first, each with where its visit came from and what was seen of it. */
export const TOUCHES_SQL = `select touch.visit_id as visit, visit.at, s.channel, s.source, s.medium, s.campaign, s.page, visit.corrected, w.way from touch
  join visit on visit.workspace_id = touch.workspace_id and visit.id = touch.visit_id
  join touch_source s on s.workspace_id = visit.workspace_id and s.id = visit.source_id
  left join touch_way w on w.workspace_id = visit.workspace_id and w.id = visit.way_id
  where touch.workspace_id = $1 and touch.record_id = $2 and ${STILL_COUNTS} order by visit.at, touch.id limit ${TOLD}`;

export interface TouchRow extends Omit<TouchShape, 'at' | 'said' | 'seen'> {
  at: Date | string;
  corrected: boolean;
  way: Way | null;
}

/** A touch as the API shows it. `seen` is set when a person corrected the source. */
export function touchShape({ at, corrected, way, ...row }: TouchRow, destination: Destination): TouchShape {
  return {
    ...row,
    at: new Date(at).toISOString(),
    said: way?.said ?? null,
    seen: corrected && way ? sourceOfWay(way, destination) : null,
  };
}
