import { Inject, Injectable } from '@nestjs/common';
import type { Fairness, FairnessLine, GivenLine } from '@haycart/api';
import type { WorkspaceTx } from '../../platform/database/database';
import { RecordsService } from '../records.service';

interface Row extends Omit<FairnessLine, 'open' | 'intended'> {
  team: string | null;
}

/** What counts: given in the last `$2` days, by an attempt that stands. */
const COUNTED = `a.workspace_id = $1 and a.at >= now() - make_interval(days => $2)
  and not exists (select 1 from attempt t where t.workspace_id = $1 and t.id = a.attempt_id and t.taken_back_by is not null)`;

/** Who got what, against what everybody's shares would have been. */
@Injectable()
export class FairnessService {
  constructor(@Inject(RecordsService) private readonly records: RecordsService) {}

  /** By team and person, those with the most first. Each time that turns were taken counts by the shares of those who could have got it then. */
  async of(tx: WorkspaceTx, days: number): Promise<Fairness> {
    const rows = await tx.statement<Row & Record<string, unknown>>(
      'fairness',
      `select a.team, a.person, count(*)::int as received, count(a.shares)::int as turns,
         percentile_cont(0.5) within group (order by extract(epoch from a.touched_at - a.at)) filter (where a.touched_at is not null) as "firstTouch",
         count(*) filter (where a.due_at is not null and (a.touched_at is not null or a.due_at < now()))::int as promised,
         count(*) filter (where a.touched_at <= a.due_at)::int as "inTime", count(*) filter (where d.status = 'won')::int as won
       from assignment a left join deal d on a.record_kind = 'deal' and d.workspace_id = $1 and d.id = a.record_id
       where ${COUNTED} group by 1, 2 order by 1 nulls last, 3 desc, 2`,
      [tx.workspaceId, days],
    );
    const shares = await tx.statement<{ team: string; person: string; intended: number }>(
      'fair_shares',
      `select team, s.key as person, sum(s.value::float8 * n / total) as intended
       from (select a.team, a.shares, count(*) as n, (select sum(value::float8) from jsonb_each_text(a.shares)) as total
         from assignment a where ${COUNTED} and a.shares is not null and a.team is not null group by 1, 2) a, jsonb_each_text(a.shares) s
       where total > 0 group by 1, 2`,
      [tx.workspaceId, days],
    );
    const lines = new Map(rows.map((row) => [keyOf(row), row]));
    // Whoever should have got something and got nothing stands there too.
    for (const { team, person, intended } of shares)
      if (intended > 0 && !lines.has(keyOf({ team, person })))
        lines.set(keyOf({ team, person }), { team, person, ...NOTHING });
    const intended = new Map(shares.map((share) => [keyOf(share), share.intended]));
    const open = await this.records.openDealsOf(tx, [...new Set([...lines.values()].map(({ person }) => person))]);
    const teams = [...new Set([...lines.values()].map(({ team }) => team))].map((team) => ({
      team,
      people: [...lines.values()]
        .filter((line) => line.team === team)
        .map(({ team: _, ...line }) => ({
          ...line,
          intended: intended.get(keyOf({ team, person: line.person })) ?? 0,
          open: open.get(line.person) ?? 0,
        })),
    }));
    return { days, teams };
  }

  /** What was given last and why, of one team or of all. */
  async latest(tx: WorkspaceTx, team: string | null, limit: number): Promise<GivenLine[]> {
    const rows = await tx.statement<Omit<GivenLine, 'at'> & { at: Date } & Record<string, unknown>>(
      'given_lately',
      `select a.id, a.record_kind as kind, a.record_id as record, r.name, a.person, a.team, a.why, a.at from assignment a left join lateral (
         select name from deal where workspace_id = $1 and id = a.record_id
         union all select name from lead where workspace_id = $1 and id = a.record_id
         union all select coalesce(full_name, email, phone, 'without a name') from contact where workspace_id = $1 and id = a.record_id
         union all select name from company where workspace_id = $1 and id = a.record_id) r on true
       where a.workspace_id = $1 and ($2::text is null or a.team = $2) order by a.at desc, a.id desc limit $3`,
      [tx.workspaceId, team, limit],
    );
    return rows.map(({ at, ...row }) => ({ ...row, at: at.toISOString() }));
  }
}

const NOTHING = { received: 0, turns: 0, firstTouch: null, promised: 0, inTime: 0, won: 0 };

function keyOf({ team, person }: { team: string | null; person: string }): string {
  return `${team ?? ''} ${person}`;
}
