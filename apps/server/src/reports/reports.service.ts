import { Inject, Injectable } from '@nestjs/common';
import type { BandFigures, HomeShape, RunOutcome, SearchHit } from '@haycart/api';
import { DecisionsService } from '../decisions/decisions.service';
import { searched } from '../records/searched';
import type { WorkspaceTx } from '../platform/database/database';
import { SubmissionsService } from '../submissions/submissions.service';

const SUBMISSIONS_FOUND = 5;

/** Figures that answer “is everything all right?”, and finding anything by its name. */
@Injectable()
export class ReportsService {
  constructor(
    @Inject(DecisionsService) private readonly decisions: DecisionsService,
    @Inject(SubmissionsService) private readonly submissions: SubmissionsService,
  ) {}

  async band(tx: WorkspaceTx): Promise<BandFigures> {
    const [row] = await tx.statement<Omit<BandFigures, 'toDecide'> & Record<string, number>>(
      'band',
      `select
         (select count(*)::int from intake where workspace_id = $1 and state = 'live') as "intakesLive",
         (select count(*)::int from submission where workspace_id = $1 and received_at >= date_trunc('day', now())) as "submissionsToday",
         (select count(*)::int from submission where workspace_id = $1 and state = 'waiting') as "waiting",
         (select count(*)::int from route where workspace_id = $1 and state = 'live') as "routesLive",
         (select count(*)::int from route where workspace_id = $1 and version is null) as "routesDraft",
         (select count(*)::int from contact where workspace_id = $1 and created_at >= date_trunc('day', now()))
           + (select count(*)::int from company where workspace_id = $1 and created_at >= date_trunc('day', now())) as "recordsToday",
         (select count(*)::int from deal where workspace_id = $1 and stage_since >= date_trunc('day', now())) as "dealsMovedToday"`,
      [tx.workspaceId],
    );
    return { ...row!, toDecide: await this.decisions.count(tx) };
  }

  /** The last 24 hours. */
  async home(tx: WorkspaceTx): Promise<HomeShape> {
    const since = `now() - interval '24 hours'`;
    const [counts] = await tx.statement<
      Pick<HomeShape, 'arrived' | 'waiting' | 'unrouted' | 'written' | 'held' | 'skipped' | 'failed' | 'takenBack'> &
        Record<string, number>
    >(
      'home_counts',
      `select count(*)::int as arrived, count(*) filter (where s.state = 'waiting')::int as waiting,
         count(*) filter (where s.state = 'unrouted')::int as unrouted,
         count(*) filter (where r.outcomes @> '{written}' and not r.outcomes && '{failed,held}')::int as written,
         count(*) filter (where r.outcomes @> '{held}' and not r.outcomes @> '{failed}')::int as held,
         count(*) filter (where r.outcomes <@ '{skipped}')::int as skipped,
         count(*) filter (where r.outcomes @> '{taken-back}' and r.outcomes <@ '{skipped,taken-back}')::int as "takenBack",
         count(*) filter (where r.outcomes @> '{failed}')::int as failed
       from submission s left join lateral (select array_agg(outcome) as outcomes from run where workspace_id = s.workspace_id and submission_id = s.id) r on true
       where s.workspace_id = $1 and s.received_at >= ${since}`,
      [tx.workspaceId],
    );
    const flows = await tx.statement<{ from: string; to: string; outcome: RunOutcome; count: number }>(
      'home_flows',
      `select i.name as "from", r.outcome, count(*)::int as count,
         case r.outcome when 'written' then coalesce(p.name, 'Contact only') when 'held' then 'Held' when 'skipped' then 'Left out' when 'failed' then 'Failed' else 'Taken back' end as "to"
       from submission s join intake i on i.workspace_id = s.workspace_id and i.id = s.intake_id
       join run r on r.workspace_id = s.workspace_id and r.submission_id = s.id
       left join pipeline p on p.workspace_id = s.workspace_id and p.key = r.pipeline
       where s.workspace_id = $1 and s.received_at >= ${since} group by 1, 2, 4 order by count desc`,
      [tx.workspaceId],
    );
    const [times] = await tx.statement<{ median: number | null; p95: number | null }>(
      'home_times',
      `select percentile_cont(0.5) within group (order by seconds) as median, percentile_cont(0.95) within group (order by seconds) as p95 from (
         select extract(epoch from r.finished_at - s.received_at)::float as seconds from run r
         join submission s on s.workspace_id = r.workspace_id and s.id = r.submission_id
         where r.workspace_id = $1 and r.outcome = 'written' and r.finished_at >= ${since} and s.received_at >= ${since} and s.turns = 1) t`,
      [tx.workspaceId],
    );
    const quiet = await tx.statement<{ key: string; name: string; last_at: Date; per_day: number }>(
      'home_quiet',
      `select i.key, i.name, last.at as last_at, (c.arrivals / 28.0)::float as per_day from intake i
       cross join lateral (select sum(arrivals) as arrivals from arrival_count where workspace_id = i.workspace_id and intake_id = i.id and day > now()::date - 28) c
       cross join lateral (select received_at as at from submission s where s.workspace_id = i.workspace_id and s.intake_id = i.id order by s.received_at desc, s.id desc limit 1) last
       where i.workspace_id = $1 and i.state = 'live' and c.arrivals > 0
         and last.at < now() - make_interval(secs => 86400 * greatest(2, 5 * 28.0 / c.arrivals))`,
      [tx.workspaceId],
    );
    const failures = await tx.statement<{
      run: string;
      submission: string;
      route: string;
      reason: string;
      count: number;
      at: Date;
    }>(
      'home_failures',
      `select (array_agg(r.id order by r.finished_at desc))[1] as run, (array_agg(r.submission_id order by r.finished_at desc))[1] as submission, t.name as route, r.summary as reason, count(*)::int as count, max(s.received_at) as at
       from run r join route t on t.workspace_id = r.workspace_id and t.id = r.route_id
       join submission s on s.workspace_id = r.workspace_id and s.id = r.submission_id
       where r.workspace_id = $1 and r.outcome = 'failed' and s.received_at >= now() - interval '7 days' group by t.name, r.summary order by at desc limit 5`,
      [tx.workspaceId],
    );
    const changed = await tx.statement<{
      route: string;
      id: string;
      version: number;
      by: string;
      note: string | null;
      at: Date;
    }>(
      'home_changed',
      `select t.name as route, t.id, v.version, v.published_by as by, v.note, v.published_at as at from route_version v
       join route t on t.workspace_id = v.workspace_id and t.id = v.route_id where v.workspace_id = $1 order by v.published_at desc limit 4`,
      [tx.workspaceId],
    );
    return {
      ...counts!,
      flows,
      median: times!.median,
      p95: times!.p95,
      quiet: quiet.map(({ key, name, last_at, per_day }) => ({
        key,
        name,
        lastAt: last_at.toISOString(),
        usualPerDay: per_day,
      })),
      failures: failures.map((row) => ({ ...row, at: row.at.toISOString() })),
      changed: changed.map((row) => ({ ...row, at: row.at.toISOString() })),
    };
  }

  /** Records, intakes and routes whose name, e-mail or number holds a text, and the latest submissions with its words. */
  async search(tx: WorkspaceTx, text: string): Promise<SearchHit[]> {
    const wanted = text.trim().toLowerCase();
    if (wanted === '') return [];
    // People say “C-1094”.
    const [, mark, digits] = /^([cfld])-0*(\d{1,15})$/.exec(wanted) ?? [];
    const numbers = ['c', 'f', 'l', 'd'].map((one) => (one === mark ? Number(digits) : null));
    const named = await tx.statement<SearchHit & { place: number }>(
      'search',
      `select kind, id, name, detail from (
         (select 'contact' as kind, id, coalesce(full_name, email, phone, 'without a name') as name, 'C-' || number || coalesce(' ' || email, '') as detail, 1 as place from contact r
          where workspace_id = $1 and (${searched('contact')} like $2 or number = $3) order by updated_at desc limit 6)
         union all (select 'company', id, name, coalesce(domain, ''), 2 from company r where workspace_id = $1 and (${searched('company')} like $2 or number = $4) order by updated_at desc limit 5)
         union all (select 'lead', id, name, 'L-' || number, 3 from lead r where workspace_id = $1 and (${searched('lead')} like $2 or number = $5) order by updated_at desc limit 4)
         union all (select 'deal', id, name, 'D-' || number, 4 from deal r where workspace_id = $1 and (${searched('deal')} like $2 or number = $6) order by updated_at desc limit 5)
         union all (select m.record_kind, m.survivor_id, m.absorbed_name, 'part of ' || coalesce(c.full_name, c.email, f.name, l.name, d.name, 'another record') || ' now', 4 from record_merge m
            left join contact c on c.workspace_id = m.workspace_id and c.id = m.survivor_id left join company f on f.workspace_id = m.workspace_id and f.id = m.survivor_id
            left join lead l on l.workspace_id = m.workspace_id and l.id = m.survivor_id left join deal d on d.workspace_id = m.workspace_id and d.id = m.survivor_id
          where m.workspace_id = $1 and m.undone_at is null and m.absorbed_number = case m.record_kind when 'contact' then $3 when 'company' then $4 when 'lead' then $5 else $6 end limit 5)
         union all (select 'intake', id, name, kind, 5 from intake where workspace_id = $1 and lower(name || ' ' || key) like $2 limit 4)
         union all (select 'route', id, name, state, 6 from route where workspace_id = $1 and lower(name) like $2 limit 4)) hits order by place`,
      [tx.workspaceId, `%${wanted.replace(/[\\%_]/g, '\\$&')}%`, ...numbers],
    );
    const sent = await this.submissions.list(tx, { search: wanted }, SUBMISSIONS_FOUND, null);
    return [
      ...named,
      ...sent.items.map(({ id, who, email, intake, receivedAt }) => ({
        kind: 'submission' as const,
        id,
        name: [who || email || 'unnamed', intake.name].join(', '),
        detail: receivedAt,
      })),
    ];
  }
}
