/** Of a row of `touch`: whether its run still stands. A touch of a run that was taken back does not count. */
export const STILL_COUNTS = `not exists (select 1 from attempt of_touch where of_touch.workspace_id = touch.workspace_id and of_touch.id = touch.attempt_id and of_touch.taken_back_by is not null)`;
