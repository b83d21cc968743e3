import { Inject, Injectable } from '@nestjs/common';
import { sourceOf, totalIn, type ExchangeRate, type Origin, type Visit } from '@haycart/core';
import type { HomeShape, IntakeDay, RunOutcome } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';
import { RunCounts } from '../counts/run-counts.service';
import { ArrivalCounts } from '../submissions/counts/arrival-counts.service';
import { DestinationService } from '../destination/destination.service';
import { RatesService } from '../workspaces/rates.service';

const SINCE = `now() - interval '24 hours'`;
const A_WEEK_AGO = [`now() - interval '8 days'`, `now() - interval '7 days'`] as const;
const DAYS = 14;
const USUAL_DAYS = 28;
const SOURCES = 4;
/** Of so many of the latest visits the sources are counted. */
const VISITS = 5_000;

const WEEK_SOURCES = `select s.source, count(*)::int as count from visit v
  join touch_source s on s.workspace_id = v.workspace_id and s.id = v.source_id
  where v.workspace_id = $1 and v.at >= now() - interval '7 days' and v.at <= now() and not v.earlier group by 1 order by 2 desc, 1 limit ${SOURCES}`;

type Counts = Pick<
  HomeShape,
  'arrived' | 'waiting' | 'unrouted' | 'written' | 'held' | 'skipped' | 'failed' | 'takenBack'
>;
type CountRow = Counts & { key: string; name: string } & Record<string, string | number>;

/** What became of a submission through all its routes: failed if any failed, and so on down. */
const BECAME = `count(*) filter (where s.state = 'waiting')::int as waiting,
  count(*) filter (where s.state = 'unrouted')::int as unrouted,
  count(*) filter (where r.outcomes @> '{written}' and not r.outcomes && '{failed,held}')::int as written,
  count(*) filter (where r.outcomes @> '{held}' and not r.outcomes @> '{failed}')::int as held,
  count(*) filter (where r.outcomes <@ '{skipped}')::int as skipped,
  count(*) filter (where r.outcomes @> '{taken-back}' and r.outcomes <@ '{skipped,taken-back}')::int as "takenBack",
  count(*) filter (where r.outcomes @> '{failed}')::int as failed`;

/** Whether everything is all right, and better or worse than usual. */
@Injectable()
export class HomeService {
  constructor(
    @Inject(ArrivalCounts) private readonly arrivals: ArrivalCounts,
    @Inject(RunCounts) private readonly runs: RunCounts,
    @Inject(RatesService) private readonly rates: RatesService,
    @Inject(DestinationService) private readonly destinations: DestinationService,
  ) {}

  async home(tx: WorkspaceTx): Promise<HomeShape> {
    const rows = await tx.statement<CountRow>(
      'home_intakes',
      `select i.key, i.name, count(*)::int as arrived, ${BECAME}
       from submission s join intake i on i.workspace_id = s.workspace_id and i.id = s.intake_id
       left join lateral (select array_agg(outcome) as outcomes from run where workspace_id = s.workspace_id and submission_id = s.id) r on true
       where s.workspace_id = $1 and s.received_at >= ${SINCE} group by 1, 2 order by arrived desc, i.name`,
      [tx.workspaceId],
    );
    const [weekAgo] = await tx.statement<HomeShape['weekAgo'] & Record<string, number>>(
      'home_week_ago',
      `select count(*)::int as arrived, count(*) filter (where exists (
         select 1 from run r where r.workspace_id = s.workspace_id and r.submission_id = s.id and r.outcome = 'failed'))::int as failed
       from submission s where s.workspace_id = $1 and s.received_at >= ${A_WEEK_AGO[0]} and s.received_at < ${A_WEEK_AGO[1]}`,
      [tx.workspaceId],
    );
    const pipeline = await this.#pipeline(tx);
    const byDay = await this.runs.byDay(tx, USUAL_DAYS);
    return {
      ...summed(rows),
      weekAgo: weekAgo!,
      usuallyWritten: shareWritten(byDay),
      days: await this.#days(tx, byDay, pipeline.days),
      inPipeline: pipeline.total,
      intakes: rows.map(intakeDay),
      sources: await this.#sources(tx),
      weekSources: await tx.statement('home_week_sources', WEEK_SOURCES, [tx.workspaceId]),
      flows: await this.#flows(tx),
      ...(await this.#times(tx)),
      quiet: await this.#quiet(tx),
      changed: await this.#changed(tx),
    };
  }

  async #days(
    tx: WorkspaceTx,
    runs: readonly { day: number; outcome: RunOutcome; count: number }[],
    inPipeline: ReadonlyMap<number, number>,
  ): Promise<HomeShape['days']> {
    const arrived = await this.arrivals.byDay(tx, DAYS);
    const of = (rows: readonly { day: number; count: number }[], ago: number) =>
      rows.reduce((sum, { day, count }) => (day === ago ? sum + count : sum), 0);
    return Array.from({ length: DAYS }, (_, index) => {
      const ago = DAYS - 1 - index;
      return {
        arrived: of(arrived, ago),
        written: of(
          runs.filter(({ outcome }) => outcome === 'written'),
          ago,
        ),
        failed: of(
          runs.filter(({ outcome }) => outcome === 'failed'),
          ago,
        ),
        inPipeline: inPipeline.get(ago) ?? 0,
      };
    });
  }

  /** What new deals are worth: by day, in the last 24 hours, and in those a week ago. */
  async #pipeline(tx: WorkspaceTx): Promise<{ total: HomeShape['inPipeline']; days: Map<number, number> }> {
    const rows = await tx.statement<{ day: number; currency: string; all: string; now: string; week_ago: string }>(
      'home_pipeline',
      `select (now() at time zone 'utc')::date - (created_at at time zone 'utc')::date as day, value_currency as currency, sum(value_amount) as all,
         coalesce(sum(value_amount) filter (where created_at >= ${SINCE}), 0) as now,
         coalesce(sum(value_amount) filter (where created_at >= ${A_WEEK_AGO[0]} and created_at < ${A_WEEK_AGO[1]}), 0) as week_ago
       from deal where workspace_id = $1 and created_at >= ((now() at time zone 'utc')::date - ${DAYS - 1})::timestamp at time zone 'utc' and value_currency is not null
       group by 1, 2`,
      [tx.workspaceId],
    );
    const { defaultCurrency } = await this.destinations.load(tx);
    const rates = await this.rates.all(tx);
    const worth = (row: { currency: string }, amount: string) =>
      worthIn(defaultCurrency, { amount: Number(amount), currency: row.currency }, rates);
    const days = new Map<number, number>();
    const total = { currency: defaultCurrency, now: 0, weekAgo: 0 };
    for (const row of rows) {
      days.set(row.day, (days.get(row.day) ?? 0) + worth(row, row.all));
      total.now += worth(row, row.now);
      total.weekAgo += worth(row, row.week_ago);
    }
    return { total, days };
  }

  /** Where visitors came from whose submissions arrived. */
  async #sources(tx: WorkspaceTx): Promise<HomeShape['sources']> {
    const destination = await this.destinations.load(tx);
    const rows = await tx.statement<{ intake: string; visit: Visit; origin: Origin }>(
      'home_visits',
      `select i.key as intake, s.visit, s.origin from submission s join intake i on i.workspace_id = s.workspace_id and i.id = s.intake_id
       where s.workspace_id = $1 and s.received_at >= ${SINCE} order by s.received_at desc, s.id desc limit ${VISITS}`,
      [tx.workspaceId],
    );
    const counts = new Map<string, number>();
    for (const row of rows) {
      const { source } = sourceOf(row, destination);
      counts.set(source, (counts.get(source) ?? 0) + 1);
    }
    return [...counts]
      .map(([source, count]) => ({ source, count }))
      .sort((a, b) => b.count - a.count || a.source.localeCompare(b.source))
      .slice(0, SOURCES);
  }

  #flows(tx: WorkspaceTx): Promise<HomeShape['flows']> {
    return tx.statement(
      'home_flows',
      `select i.name as "from", r.outcome, count(*)::int as count,
         case r.outcome when 'written' then coalesce(p.name, 'Contact only') when 'held' then 'Held' when 'skipped' then 'Left out' when 'failed' then 'Failed' else 'Taken back' end as "to"
       from submission s join intake i on i.workspace_id = s.workspace_id and i.id = s.intake_id
       join run r on r.workspace_id = s.workspace_id and r.submission_id = s.id
       left join pipeline p on p.workspace_id = s.workspace_id and p.key = r.pipeline
       where s.workspace_id = $1 and s.received_at >= ${SINCE} group by 1, 2, 4 order by count desc`,
      [tx.workspaceId],
    );
  }

  async #times(tx: WorkspaceTx): Promise<Pick<HomeShape, 'median' | 'p95'>> {
    const [times] = await tx.statement<{ median: number | null; p95: number | null }>(
      'home_times',
      `select percentile_cont(0.5) within group (order by seconds) as median, percentile_cont(0.95) within group (order by seconds) as p95 from (
         select extract(epoch from r.finished_at - s.received_at)::float as seconds from run r
         join submission s on s.workspace_id = r.workspace_id and s.id = r.submission_id
         where r.workspace_id = $1 and r.outcome = 'written' and r.finished_at >= ${SINCE} and s.received_at >= ${SINCE} and s.turns = 1) t`,
      [tx.workspaceId],
    );
    return times!;
  }

  async #quiet(tx: WorkspaceTx): Promise<HomeShape['quiet']> {
    const rows = await tx.statement<{ key: string; name: string; last_at: Date; per_day: number }>(
      'home_quiet',
      `select i.key, i.name, last.at as last_at, (c.arrivals / 28.0)::float as per_day from intake i
       cross join lateral (select sum(arrivals) as arrivals from arrival_count where workspace_id = i.workspace_id and intake_id = i.id and day > now()::date - 28) c
       cross join lateral (select received_at as at from submission s where s.workspace_id = i.workspace_id and s.intake_id = i.id order by s.received_at desc, s.id desc limit 1) last
       where i.workspace_id = $1 and i.state = 'live' and c.arrivals > 0
         and last.at < now() - make_interval(secs => 86400 * greatest(2, 5 * 28.0 / c.arrivals))`,
      [tx.workspaceId],
    );
    return rows.map(({ key, name, last_at, per_day }) => ({
      key,
      name,
      lastAt: last_at.toISOString(),
      usualPerDay: per_day,
    }));
  }

  async #changed(tx: WorkspaceTx): Promise<HomeShape['changed']> {
    const rows = await tx.statement<Omit<HomeShape['changed'][number], 'at'> & { at: Date }>(
      'home_changed',
      `select t.name as route, t.id, v.version, v.published_by as by, v.note, v.published_at as at from route_version v
       join route t on t.workspace_id = v.workspace_id and t.id = v.route_id where v.workspace_id = $1 order by v.published_at desc limit 2`,
      [tx.workspaceId],
    );
    return rows.map((row) => ({ ...row, at: row.at.toISOString() }));
  }
}

function summed(rows: readonly CountRow[]): Counts {
  const of = (key: keyof Counts) => rows.reduce((sum, row) => sum + row[key], 0);
  return {
    arrived: of('arrived'),
    waiting: of('waiting'),
    unrouted: of('unrouted'),
    written: of('written'),
    held: of('held'),
    skipped: of('skipped'),
    failed: of('failed'),
    takenBack: of('takenBack'),
  };
}

function intakeDay({ key, name, arrived, written, held, skipped, failed }: CountRow): IntakeDay {
  return { key, name, received: arrived, written, held, skipped, failed };
}

function shareWritten(rows: readonly { outcome: RunOutcome; count: number }[]): number | null {
  const of = (some: (outcome: RunOutcome) => boolean) =>
    rows.reduce((sum, { outcome, count }) => (some(outcome) ? sum + count : sum), 0);
  const all = of(() => true);
  return all > 0 ? of((outcome) => outcome === 'written') / all : null;
}

function worthIn(own: string, value: { amount: number; currency: string }, rates: readonly ExchangeRate[]): number {
  return totalIn([value], own, new Date().toISOString().slice(0, 10), rates).total.amount;
}
