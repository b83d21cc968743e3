import { Inject, Injectable, Logger, type OnModuleDestroy } from '@nestjs/common';
import { deviceOf, sourceOfWay, wayOf, type FormDid, type FormTally, type Visit, type Way } from '@haycart/core';
import { DestinationService } from '../destination/destination.service';
import { Database, type WorkspaceTx } from '../platform/database/database';
import type { PublicForm } from './public-forms.service';

const FLUSH_MS = 1_000;
/** Of how many things at once the counts are kept apart; what is above is counted without its page. */
const MOST_APART = 5_000;
const LONGEST_PAGE = 300;
const LONGEST_SOURCE = 200;

/** What happened at a form in one day. */
export interface CountedDay extends FormTally {
  intakeId: string;
  channel: string;
  /** Blank without one. */
  campaign: string;
  /** `2026-03-14` */
  day: string;
}

/** The source is worked out from the way when the count is written. */
interface Kept extends Omit<CountedDay, 'channel' | 'source' | 'campaign'> {
  workspaceId: string;
  way: Way;
}

/** What a visitor did, and from where. */
export interface Seen {
  did: FormDid;
  item?: string;
  seconds?: number;
  visit: Visit;
}

const ADD = `insert into form_count (workspace_id, intake_id, day, version, page, channel, source, campaign, device, did, item, count, seconds)
  select $1::uuid, t.* from unnest($2::uuid[], $3::date[], $4::int[], $5::text[], $6::text[], $7::text[], $8::text[], $9::text[], $10::text[], $11::text[], $12::int[], $13::int[]) t
  on conflict (workspace_id, intake_id, day, version, page, channel, source, campaign, device, did, item)
  do update set count = form_count.count + excluded.count, seconds = form_count.seconds + excluded.seconds`;

/**
 * Counts what happens at forms: in memory, and once a second in the database, so that counting costs a visitor nothing. No
 * cookie is set and nothing about a person is kept.
 */
@Injectable()
export class FormCounts implements OnModuleDestroy {
  #counts = new Map<string, Kept>();
  #timer: NodeJS.Timeout | undefined;
  readonly #log = new Logger('form-counts');

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(DestinationService) private readonly destinations: DestinationService,
  ) {}

  count(form: PublicForm, { did, item = '', seconds = 0, visit }: Seen): void {
    const page = this.#counts.size < MOST_APART ? pageOf(visit) : '';
    const kept: Kept = {
      workspaceId: form.workspaceId,
      intakeId: form.id,
      day: new Date().toISOString().slice(0, 10),
      version: form.version,
      page,
      way: wayOf({ intake: form.key, visit }),
      device: deviceOf(visit.userAgent ?? ''),
      did,
      item,
      count: 1,
      seconds,
    };
    this.#keep(kept, FLUSH_MS);
  }

  #keep(kept: Kept, writeIn: number): void {
    const { intakeId, day, version, page, way, device, did, item } = kept;
    const key = [intakeId, day, version, page, JSON.stringify(way), device, did, item].join('\n');
    const known = this.#counts.get(key);
    if (known) {
      known.count += kept.count;
      known.seconds += kept.seconds;
    } else this.#counts.set(key, kept);
    this.#timer ??= setTimeout(() => void this.flush(), writeIn).unref();
  }

  /** Writes what was counted since the last time. */
  async flush(): Promise<void> {
    clearTimeout(this.#timer);
    this.#timer = undefined;
    const counts = [...this.#counts.values()];
    this.#counts = new Map();
    for (const workspaceId of new Set(counts.map((one) => one.workspaceId))) {
      const own = counts.filter((one) => one.workspaceId === workspaceId);
      try {
        await this.database.inWorkspace(workspaceId, async (tx) => this.add(tx, await this.#withSources(tx, own)));
      } catch (err) {
        this.#log.warn({ err }, 'Counts of forms could not be written; they are tried again.');
        for (const one of own) this.#keep(one, FLUSH_MS * 5);
      }
    }
  }

  async onModuleDestroy(): Promise<void> {
    await this.flush();
  }

  /** Everything counted at a form since so many days. */
  tallies(tx: WorkspaceTx, intakeId: string, days: number): Promise<FormTally[]> {
    return tx.statement<FormTally>(
      'form_tallies',
      `select version, page, source, device, did, item, sum(count)::int as count, sum(seconds)::int as seconds from form_count
       where workspace_id = $1 and intake_id = $2 and day > current_date - $3::int group by 1, 2, 3, 4, 5, 6`,
      [tx.workspaceId, intakeId, days],
    );
  }

  /** Views, starts and sends of every form in the last 30 days, by intake. */
  async month(
    tx: WorkspaceTx,
  ): Promise<Map<string, { views: number; starts: number; sends: number; pages: string[] }>> {
    const rows = await tx.statement<{
      id: string;
      views: number;
      starts: number;
      sends: number;
      pages: string[] | null;
    }>(
      'form_month',
      `select intake_id as id, coalesce(sum(count) filter (where did = 'view'), 0)::int as views,
         coalesce(sum(count) filter (where did = 'start'), 0)::int as starts, coalesce(sum(count) filter (where did = 'send'), 0)::int as sends,
         array_agg(distinct page) filter (where did = 'view' and page <> '') as pages
       from form_count where workspace_id = $1 and day > current_date - 30 group by 1`,
      [tx.workspaceId],
    );
    return new Map(rows.map(({ id, pages, ...figures }) => [id, { ...figures, pages: (pages ?? []).slice(0, 20) }]));
  }

  /** Adds the source to each count. Counts that become the same are added up. */
  async #withSources(tx: WorkspaceTx, counts: readonly Kept[]): Promise<CountedDay[]> {
    const destination = await this.destinations.load(tx);
    const days = new Map<string, CountedDay>();
    for (const { way, workspaceId: _, ...kept } of counts) {
      const { channel, source, campaign } = sourceOfWay(way, destination);
      const cut = (text: string) => text.slice(0, LONGEST_SOURCE);
      const day = { ...kept, channel: cut(channel), source: cut(source), campaign: cut(campaign ?? '') };
      const key = JSON.stringify({ ...day, count: 0, seconds: 0 });
      const before = days.get(key);
      if (before) {
        before.count += day.count;
        before.seconds += day.seconds;
      } else days.set(key, day);
    }
    return [...days.values()];
  }

  /** Adds to what was counted, each line of another thing. */
  async add(tx: WorkspaceTx, own: readonly CountedDay[]): Promise<void> {
    const column = (name: keyof CountedDay) => own.map((one) => one[name]);
    await tx.statement('form_count_add', ADD, [
      tx.workspaceId,
      column('intakeId'),
      column('day'),
      column('version'),
      column('page'),
      column('channel'),
      column('source'),
      column('campaign'),
      column('device'),
      column('did'),
      column('item'),
      column('count'),
      column('seconds'),
    ]);
  }
}

/** A page without what its address asks: that could tell who looked. */
function pageOf({ page = '' }: Visit): string {
  return page.split(/[?#]/, 1)[0]!.slice(0, LONGEST_PAGE);
}
