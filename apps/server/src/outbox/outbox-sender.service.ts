import { setTimeout as pause } from 'node:timers/promises';
import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnModuleDestroy } from '@nestjs/common';
import { LIMITS } from '@haycart/core';
import type { Subscription } from 'rxjs';
import type { Config } from '../platform/config';
import { databaseFailure } from '../platform/database/failure';
import { Events } from '../platform/events/events';
import { Metrics } from '../platform/metrics';
import { CONFIG } from '../platform/tokens';
import { LaneCounts, laneOf, mostAtOnce, hasOwnLane, receiverOf } from './lanes';
import { OutboxQueue, type TriedItem } from './outbox-queue';
import { PERFORMERS, type DueItem, type Early, type Performed, type Performer } from './performers/performer';

/** The pauses before something is sent again, in seconds; after the last it is given up. Some seven hours in all. */
export const SEND_PAUSES = [5, 30, 120, 600, 3_600, 21_600] as const;

/** How long it rests when nothing wakes it, in milliseconds: what is tried again falls due without a notice. */
const REST_MS = 1_000;
/** So many are at hand before more are taken. */
const READ_AHEAD = 2 * LIMITS.outgoingAtOnce.most;
const MOST_FAILING = 10_000;
/** Nothing goes out too early because that could not be looked up. */
const UNKNOWN: Early = { ok: false, why: 'Whether it may go now could not be looked up.', early: 30 };

/** Sends what is in the outbox, side by side but never too much to one address. Any number of processes may do so. */
@Injectable()
export class OutboxSender implements OnApplicationBootstrap, OnModuleDestroy {
  readonly #log = new Logger('outbox');
  readonly #performers: ReadonlyMap<string, Performer>;
  readonly #stopping = new AbortController();
  /** What was taken and waits for its turn in its lane, oldest first. */
  #ready: DueItem[] = [];
  readonly #underWay = new Set<Promise<void>>();
  /** How much was taken of each lane, how much of it is on its way, and the lanes of which the last try got no answer. */
  readonly #taken = new LaneCounts();
  readonly #sending = new LaneCounts();
  readonly #failing = new Set<string>();
  /** The lanes that rest, since their receivers take only so many a minute. */
  readonly #resting = new Set<string>();
  /** What came of tries and is not noted yet, by workspace: noted together while others are on their way. */
  readonly #tried = new Map<string, TriedItem[]>();
  readonly #noting = new Map<string, Promise<void>>();
  #notices: Subscription | null = null;
  #wake = () => {};
  #working: Promise<void> = Promise.resolve();

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(Events) private readonly events: Events,
    @Inject(Metrics) private readonly metrics: Metrics,
    @Inject(OutboxQueue) private readonly queue: OutboxQueue,
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
    const left = this.#ready.splice(0);
    await Promise.all(left.map((item) => this.queue.putBack(item).catch(() => {})));
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
    let due = await this.queue.due();
    while (due.length && !this.#stopping.signal.aborted) {
      const more: string[] = [];
      for (const workspaceId of due) {
        // Something is on its way while anything is ready, but for when the server stops.
        while (this.#ready.length >= READ_AHEAD && this.#underWay.size) await Promise.race(this.#underWay);
        if (this.#stopping.signal.aborted) return;
        const taken = this.#taken.of(workspaceId, this.#failing, this.#resting);
        const items = await this.queue.claim(workspaceId, 2 * READ_AHEAD - this.#ready.length, taken);
        for (const item of items) this.#taken.add(laneOf(item), 1);
        this.#ready.push(...items);
        this.#beginReady();
        if (items.length) more.push(workspaceId);
      }
      due = more;
    }
  }

  /** Begins what is ready, as far as there is room for it in its lane. */
  #beginReady(): void {
    if (this.#stopping.signal.aborted) return;
    this.#ready = this.#ready.filter((item) => {
      const lane = laneOf(item);
      const room = mostAtOnce(lane, this.#failing.has(lane));
      if (this.#underWay.size >= LIMITS.outgoingAtOnce.most || this.#sending.get(lane) >= room) return true;
      this.#begin(item, lane);
      return false;
    });
  }

  #begin(item: DueItem, lane: string): void {
    this.#sending.add(lane, 1);
    const sent = this.#send(item)
      .catch((cause: unknown) => {
        // What could not be written down is tried again once it is taken for lost.
        this.#log.warn(`What was sent could not be noted: ${databaseFailure(cause)}.`);
      })
      .finally(() => {
        this.#sending.add(lane, -1);
        this.#taken.add(lane, -1);
        this.#underWay.delete(sent);
        this.#beginReady();
        // Others of this lane may have been passed over.
        if (this.#ready.length < READ_AHEAD) this.#wake();
      });
    this.#underWay.add(sent);
  }

  async #send(item: DueItem): Promise<void> {
    const performer = this.#performers.get(item.kind);
    const early = performer ? await this.#tooEarly(performer, item).catch(() => UNKNOWN) : null;
    const others = item.together && !early ? await this.queue.claimWith(item) : [];
    const performed = early ?? (await this.#performed(performer, item, others));
    this.#noteLane(laneOf(item), performed);
    const all = [item, ...others];
    if (!performed.ok && this.#stopping.signal.aborted) {
      for (const one of all) await this.queue.putBack(one);
      return;
    }
    const error = performed.ok ? null : performed.why;
    const came = afterwards(performed, item.tries);
    await Promise.all(all.map((one) => this.#note({ item: one, error, ...came })));
    this.metrics.sent.inc({ kind: item.kind, state: came.state }, all.length);
  }

  #rest(lane: string, seconds: number): void {
    this.#resting.add(lane);
    setTimeout(() => {
      this.#resting.delete(lane);
      this.#wake();
    }, seconds * 1_000).unref();
  }

  /** Whether its receiver wants nothing now, or has had as many as it takes; then its whole lane rests until the next may go. */
  async #tooEarly(performer: Performer, item: DueItem): Promise<Early | null> {
    const early = await performer.tooEarly?.(item);
    if (early) return early;
    const perMinute = await performer.perMinute?.(item);
    if (perMinute == null) return null;
    const seconds = await this.queue.takeTurn(item.workspaceId, receiverOf(item), perMinute);
    if (seconds <= 0) return null;
    if (hasOwnLane(item)) this.#rest(laneOf(item), seconds);
    return { ok: false, why: `Its receiver takes ${perMinute} a minute.`, early: seconds };
  }

  /** A lane whose receiver gives no answer in time is tried with one at a time, so that it takes no room from others. */
  #noteLane(lane: string, performed: Performed): void {
    if (performed.ok || !('unanswered' in performed) || !performed.unanswered) this.#failing.delete(lane);
    else if (this.#failing.size < MOST_FAILING) this.#failing.add(lane);
  }

  /** Notes what came of a try, with all others of its workspace that ended meanwhile. */
  async #note(tried: TriedItem): Promise<void> {
    const { workspaceId } = tried.item;
    const waiting = this.#tried.get(workspaceId);
    if (waiting) {
      waiting.push(tried);
      return this.#noting.get(workspaceId);
    }
    const together = [tried];
    this.#tried.set(workspaceId, together);
    const before = this.#noting.get(workspaceId) ?? Promise.resolve();
    const noting = before
      .catch(() => {})
      .then(() => {
        this.#tried.delete(workspaceId);
        return this.queue.note(workspaceId, together);
      });
    this.#noting.set(workspaceId, noting);
    return noting;
  }

  async #performed(performer: Performer | undefined, item: DueItem, others: readonly DueItem[]): Promise<Performed> {
    if (!performer) return { ok: false, why: `Nothing here sends “${item.kind}”.`, again: false };
    try {
      return await performer.perform(item, this.#stopping.signal, others);
    } catch (cause) {
      return { ok: false, why: (cause as Error).message, again: true };
    }
  }
}

/** What becomes of something that was tried so often; the seconds are how long it rests. */
function afterwards(performed: Performed, tries: number): Omit<TriedItem, 'item' | 'error'> {
  const untried = !performed.ok && 'early' in performed;
  if (untried) return { state: 'waiting', seconds: performed.early, untried };
  if (performed.ok) return { state: 'done', seconds: 0, untried };
  if ('unwanted' in performed) return { state: 'cancelled', seconds: 0, untried };
  const pauseSeconds = performed.again ? SEND_PAUSES[tries - 1] : undefined;
  if (pauseSeconds === undefined) return { state: 'given-up', seconds: performed.after ?? 0, untried };
  return { state: 'waiting', seconds: Math.max(pauseSeconds, performed.after ?? 0), untried };
}

function resting(): Promise<void> {
  return pause(REST_MS, undefined, { ref: false });
}
