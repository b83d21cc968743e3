/** Of a row of `touch`: whether its run still stands. A touch of a run that was taken back does not count. */
export const STILL_COUNTS = `not exists (select 1 from any_run of_touch where of_touch.workspace_id = touch.workspace_id and of_touch.id = touch.run_id and of_touch.outcome = 'taken-back')`;
