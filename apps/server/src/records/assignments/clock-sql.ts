const utc = (time: string) => `to_char(${time} at time zone 'utc', 'YYYY-MM-DD"T"HH24:MI:SS"Z"')`;

/** Until when a record is to be answered whoever has it now, as JSON; null where nothing is promised. Its id is a parameter or a column. */
export function clockSql(record: string): string {
  return `(select jsonb_build_object('at', ${utc('c.at')}, 'person', c.person, 'due', ${utc('c.due_at')}, 'touchedAt', ${utc('c.touched_at')}, 'touchedBy', c.touched_by)
    from (select * from assignment where workspace_id = $1 and record_id = ${record} order by at desc, id desc limit 1) c where c.due_at is not null)`;
}

/** The same while it waits for its answer. */
export function openClockSql(record: string): string {
  return clockSql(record).replace('c.due_at is not null', 'c.due_at is not null and c.touched_at is null');
}
