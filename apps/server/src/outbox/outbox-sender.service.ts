import { setTimeout as pause } from 'node:timers/promises';
import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnModuleDestroy } from '@nestjs/common';
import { LIMITS } from '@haycart/core';
import type { Subscription } from 'rxjs';
import type { Config } from '../platform/config';
import { databaseFailure } from '../platform/database/failure';
import { Events } from '../platform/events/events';
import { Metrics } from '../platform/metrics';
import { CONFIG } from '../platform/tokens';
import { OutboxQueue, type TriedItem } from './outbox-queue';
import { PERFORMERS, type DueItem, type Performed, type Performer } from './performers/performer';

/** The pauses before something is sent again, in seconds; after the last it is given up. Some seven hours in all. */
export const SEND_PAUSES = [5, 30, 120, 600, 3_600, 21_600] as const;

/** How long it rests when nothing wakes it, in milliseconds: what is tried again falls due without a notice. */
const REST_MS = 1_000;

/** Sends what is in the outbox, side by side but never too much to one address. Any number of processes may do so. */
@Injectable()
export class OutboxSender implements OnApplicationBootstrap, OnModuleDestroy {
  readonly #log = new Logger('outbox');
  readonly #performers: ReadonlyMap<string, Performer>;
  readonly #stopping = new AbortController();
  /** What is on its way, and how much of it to each address. */
  readonly #underWay = new Set<Promise<void>>();
  readonly #perAddress = new Map<string, number>();
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
        while (this.#underWay.size >= LIMITS.outgoingAtOnce.most) await Promise.race(this.#underWay);
        if (this.#stopping.signal.aborted) return;
        const free = LIMITS.outgoingAtOnce.most - this.#underWay.size;
        const items = await this.queue.claim(workspaceId, free, this.#perAddress);
        for (const item of items) this.#begin(item);
        if (items.length) more.push(workspaceId);
      }
      due = more;
    }
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
    if (!performed.ok && this.#stopping.signal.aborted) return this.queue.putBack(item);
    const pauseSeconds = performed.ok || !performed.again ? undefined : SEND_PAUSES[item.tries - 1];
    const state = performed.ok ? 'done' : pauseSeconds === undefined ? 'given-up' : 'waiting';
    const seconds = Math.max(pauseSeconds ?? 0, performed.ok ? 0 : (performed.after ?? 0));
    await this.#note({ item, state, error: performed.ok ? null : performed.why, seconds });
    this.metrics.sent.inc({ kind: item.kind, state });
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

  async #performed(item: DueItem): Promise<Performed> {
    const performer = this.#performers.get(item.kind);
    if (!performer) return { ok: false, why: `Nothing here sends “${item.kind}”.`, again: false };
    try {
      return await performer.perform(item, this.#stopping.signal);
    } catch (cause) {
      return { ok: false, why: (cause as Error).message, again: true };
    }
  }
}

function resting(): Promise<void> {
  return pause(REST_MS, undefined, { ref: false });
}
