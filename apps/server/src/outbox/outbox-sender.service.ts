import { setTimeout as pause } from 'node:timers/promises';
import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnModuleDestroy } from '@nestjs/common';
import { LIMITS, type JsonValue } from '@haycart/core';
import type { Subscription } from 'rxjs';
import type { Config } from '../platform/config';
import { Database } from '../platform/database/database';
import { databaseFailure } from '../platform/database/failure';
import { Events } from '../platform/events/events';
import { Metrics } from '../platform/metrics';
import { CONFIG } from '../platform/tokens';
import { PERFORMERS, type DueItem, type Performed, type Performer } from './performers/performer';

/** The pauses before something is sent again, in seconds; after the last it is given up. Some seven hours in all. */
export const SEND_PAUSES = [5, 30, 120, 600, 3_600, 21_600] as const;

/** How long something may be on its way before another process takes it for lost, in seconds. */
const ON_ITS_WAY = 2 * LIMITS.outgoingAnswer.most + 30;
/** How long it rests when nothing wakes it, in milliseconds: what is tried again falls due without a notice. */
const REST_MS = 1_000;
const LONGEST_ERROR = 1_000;

/** Sends what is in the outbox, side by side but never too much to one address. Any number of processes may do so. */
@Injectable()
export class OutboxSender implements OnApplicationBootstrap, OnModuleDestroy {
  readonly #log = new Logger('outbox');
  readonly #performers: ReadonlyMap<string, Performer>;
  readonly #stopping = new AbortController();
  /** What is on its way, and how much of it to each address. */
  readonly #underWay = new Set<Promise<void>>();
  readonly #perAddress = new Map<string, number>();
  #notices: Subscription | null = null;
  #wake = () => {};
  #working: Promise<void> = Promise.resolve();

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(Database) private readonly database: Database,
    @Inject(Events) private readonly events: Events,
    @Inject(Metrics) private readonly metrics: Metrics,
    @Inject(PERFORMERS) performers: readonly Performer[],
  ) {
    this.#performers = new Map(performers.map((performer) => [performer.kind, performer]));
  }

  onApplicationBootstrap(): void {
    if (!this.config.background || (this.config.role !== 'all' && this.config.role !== 'route')) return;
    this.#notices = this.events.all.subscribe(({ topics }) => {
      if (topics.includes('outbox')) this.#wake();
    });
    this.#working = this.#work();
  }

  async onModuleDestroy(): Promise<void> {
    this.#notices?.unsubscribe();
    this.#stopping.abort();
    this.#wake();
    await this.#working;
    await Promise.all(this.#underWay);
  }

  async #work(): Promise<void> {
    while (!this.#stopping.signal.aborted) {
      let woken = false;
      const notice = new Promise<void>((resolve) => {
        this.#wake = () => {
          woken = true;
          resolve();
        };
      });
      try {
        await this.#sendDue();
      } catch (cause) {
        this.#log.warn(`Sending waits for the database: ${databaseFailure(cause)}.`);
      }
      if (!woken && !this.#stopping.signal.aborted) await Promise.race([notice, resting()]);
    }
  }

  /** Begins to send all that is due, in turn from each workspace; returns once nothing more is. */
  async #sendDue(): Promise<void> {
    let due = await this.#due();
    while (due.length && !this.#stopping.signal.aborted) {
      const more: string[] = [];
      for (const workspaceId of due) {
        while (this.#underWay.size >= LIMITS.outgoingAtOnce.most) await Promise.race(this.#underWay);
        if (this.#stopping.signal.aborted) return;
        const item = await this.#claim(workspaceId);
        if (!item) continue;
        more.push(workspaceId);
        this.#begin(item);
      }
      due = more;
    }
  }

  async #due(): Promise<string[]> {
    return (await this.database.gate<{ id: string }>('workspaces_sending')).map(({ id }) => id);
  }

  /** Takes what has been due for longest; nobody else gets it unless this process is lost. */
  async #claim(workspaceId: string): Promise<DueItem | null> {
    const full = [...this.#perAddress].filter(([, n]) => n >= LIMITS.outgoingPerAddress.most).map(([to]) => to);
    const [row] = await this.database.inWorkspace(workspaceId, (tx) =>
      tx.statement<{ id: string; kind: string; target: string; key: string; body: JsonValue; tries: number }>(
        'claim_outgoing',
        `update outbox set attempts = attempts + 1, tries = tries + 1, due_at = now() + make_interval(secs => $3)
         where workspace_id = $1 and id = (select id from outbox
           where workspace_id = $1 and state = 'waiting' and due_at <= now() and target <> all($2::text[]) order by due_at, id limit 1 for update skip locked)
         returning id, kind, target, key, body, tries`,
        [workspaceId, full, ON_ITS_WAY],
      ),
    );
    return row ? { ...row, workspaceId } : null;
  }

  #begin(item: DueItem): void {
    const { target } = item;
    this.#perAddress.set(target, (this.#perAddress.get(target) ?? 0) + 1);
    const sent = this.#send(item)
      .catch((cause: unknown) => {
        // What could not be written down is tried again once it is taken for lost.
        this.#log.warn(`What was sent could not be noted: ${databaseFailure(cause)}.`);
      })
      .finally(() => {
        const left = this.#perAddress.get(target)! - 1;
        if (left) this.#perAddress.set(target, left);
        else this.#perAddress.delete(target);
        this.#underWay.delete(sent);
        // Others to this address may have been passed over.
        this.#wake();
      });
    this.#underWay.add(sent);
  }

  async #send(item: DueItem): Promise<void> {
    const performed = await this.#performed(item);
    if (!performed.ok && this.#stopping.signal.aborted) return this.#putBack(item);
    const pauseSeconds = performed.ok || !performed.again ? undefined : SEND_PAUSES[item.tries - 1];
    const state = performed.ok ? 'done' : pauseSeconds === undefined ? 'given-up' : 'waiting';
    const seconds = Math.max(pauseSeconds ?? 0, performed.ok ? 0 : (performed.after ?? 0));
    await this.database.inWorkspace(item.workspaceId, async (tx) => {
      // Unless somebody cancelled it meanwhile, or another process took it for lost.
      await tx.statement(
        'note_outgoing',
        `update outbox set state = $4, last_error = $5, due_at = now() + make_interval(secs => $6), ended_at = case when $4 = 'waiting' then null else now() end
         where workspace_id = $1 and id = $2 and tries = $3 and (state = 'waiting' or $4 = 'done')`,
        [
          tx.workspaceId,
          item.id,
          item.tries,
          state,
          performed.ok ? null : performed.why.slice(0, LONGEST_ERROR),
          seconds,
        ],
      );
      await this.events.tell(tx, 'outbox', ...(state === 'given-up' ? (['decisions'] as const) : []));
    });
    this.metrics.sent.inc({ kind: item.kind, state });
  }

  async #performed(item: DueItem): Promise<Performed> {
    const performer = this.#performers.get(item.kind);
    if (!performer) return { ok: false, why: `Nothing here sends “${item.kind}”.`, again: false };
    try {
      return await performer.perform(item, this.#stopping.signal);
    } catch (cause) {
      return { ok: false, why: (cause as Error).message, again: true };
    }
  }

  /** The server stops: it is sent after the next start, and this try does not count. */
  async #putBack({ workspaceId, id, tries }: DueItem): Promise<void> {
    await this.database.inWorkspace(workspaceId, (tx) =>
      tx.statement(
        'put_back_outgoing',
        `update outbox set attempts = attempts - 1, tries = tries - 1, due_at = now() where workspace_id = $1 and id = $2 and tries = $3 and state = 'waiting'`,
        [workspaceId, id, tries],
      ),
    );
  }
}

function resting(): Promise<void> {
  return pause(REST_MS, undefined, { ref: false });
}
