import { Injectable } from '@nestjs/common';
import type { Balance, BalanceLine } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';

/** The most ids that one line names. */
const NAMED = 100;

/** What became of a submission `s`: its state if it was not routed, else the outcome of its worst run; `off` if it has no run. */
const BECAME = `case when s.state <> 'routed' then s.state
    when r.outcomes && '{failed}' then 'failed' when r.outcomes && '{held}' then 'held' when r.outcomes && '{written}' then 'written'
    when r.outcomes && '{taken-back}' then 'taken-back' when r.outcomes && '{skipped}' then 'skipped' else 'off' end`;

const BALANCE_SQL = `with became as (
    select s.intake_id, (s.received_at at time zone 'utc')::date as day, s.id, ${BECAME} as became
    from submission s left join lateral (
      select array_agg(outcome) as outcomes from run where workspace_id = s.workspace_id and submission_id = s.id) r on true
    where s.workspace_id = $1 and s.received_at >= $2::date::timestamp at time zone 'utc' and s.received_at < $3::date::timestamp at time zone 'utc'),
  kept as (
    select intake_id, day, count(*)::int as kept,
      count(*) filter (where became = 'written')::int as written, count(*) filter (where became = 'held')::int as held,
      count(*) filter (where became = 'skipped')::int as skipped, count(*) filter (where became = 'failed')::int as failed,
      count(*) filter (where became = 'taken-back')::int as taken_back, count(*) filter (where became = 'unrouted')::int as unrouted,
      count(*) filter (where became = 'waiting')::int as waiting, count(*) filter (where became = 'set-aside')::int as set_aside,
      count(*) filter (where became = 'cancelled')::int as cancelled,
      coalesce((array_agg(id order by id) filter (where became = 'off'))[:${NAMED}], '{}') as off
    from became group by 1, 2),
  told as (
    select intake_id, day, sum(acknowledged)::int as acknowledged from acknowledged_count
    where workspace_id = $1 and day >= $2::date and day < $3::date group by 1, 2)
  select i.key as intake, i.name, coalesce(k.day, t.day)::text as day, coalesce(acknowledged, 0) as acknowledged, coalesce(kept, 0) as kept,
    coalesce(written, 0) as written, coalesce(held, 0) as held, coalesce(skipped, 0) as skipped, coalesce(failed, 0) as failed,
    coalesce(taken_back, 0) as "takenBack", coalesce(unrouted, 0) as unrouted, coalesce(waiting, 0) as waiting,
    coalesce(set_aside, 0) as "setAside", coalesce(cancelled, 0) as cancelled, coalesce(off, '{}') as off
  from kept k full join told t on t.intake_id = k.intake_id and t.day = k.day
  join intake i on i.workspace_id = $1 and i.id = coalesce(k.intake_id, t.intake_id)
  order by coalesce(k.day, t.day) desc, i.name, i.key`;

/** Compares the submissions that senders were told of with those that are stored, and counts what became of each. Both are counted independently. */
@Injectable()
export class BalanceService {
  /** @param from The first day. @param to The day after the last. */
  async of(tx: WorkspaceTx, from: string, to: string): Promise<Balance> {
    const lines = await tx.statement<BalanceLine & Record<string, unknown>>('balance', BALANCE_SQL, [
      tx.workspaceId,
      from,
      to,
    ]);
    return { lines, off: lines.reduce((sum, line) => sum + offOf(line), 0) };
  }
}

/** The number of submissions that were acknowledged and are not stored, or are stored without any run. More may be stored than counted: a killed process loses its last counts. */
export function offOf({ acknowledged, kept, off }: BalanceLine): number {
  return Math.max(0, acknowledged - kept) + off.length;
}
