import { LIMITS } from '@haycart/core';
import type { DueItem } from './performers/performer';

/** What goes through one server of the workspace, whomever it is for. */
export const SHARED: readonly string[] = ['mail', 'text'];

/** What waits behind one receiver, and not behind another: a server of the workspace, or an address. */
export function laneOf({ workspaceId, kind, target }: Pick<DueItem, 'workspaceId' | 'kind' | 'target'>): string {
  return SHARED.includes(kind) ? `${workspaceId} ${kind}` : target;
}

/** What may take only so many a minute: the workspace’s mail server, or a chat or a phone. */
export function receiverOf({ kind, target }: Pick<DueItem, 'kind' | 'target'>): string {
  return kind === 'mail' ? kind : target;
}

/** Whether a receiver’s lane is its own, so that all of it may rest: a phone shares that of the gateway. */
export function hasOwnLane({ kind }: Pick<DueItem, 'kind'>): boolean {
  return kind !== 'text';
}

/** How much may be on its way in a lane at once: one alone where the last try got no answer. */
export function mostAtOnce(lane: string, isFailing: boolean): number {
  if (isFailing) return 1;
  const { most } = LIMITS.outgoingPerAddress;
  return SHARED.some((kind) => lane.endsWith(` ${kind}`)) ? 2 * most : most;
}

/** How much may be taken of a lane, as one workspace names it: as much again as may be on its way. */
export function mostTaken(lane: string): number {
  return 2 * mostAtOnce(` ${lane}`, false);
}

/** Of a lane that gives no answer: the one that is tried, and the next. */
const MOST_OF_FAILING = 2;

/** How much is under way, by lane. */
export class LaneCounts {
  readonly #counts = new Map<string, number>();

  get(lane: string): number {
    return this.#counts.get(lane) ?? 0;
  }

  add(lane: string, by: 1 | -1): void {
    const left = this.get(lane) + by;
    if (left) this.#counts.set(lane, left);
    else this.#counts.delete(lane);
  }

  /**
   * As one workspace names its lanes: its servers by their kinds, addresses as they are. Those that give no answer count as
   * nearly full, so that what waits for them takes no room from others; those that rest are full.
   */
  of(workspaceId: string, failing: Iterable<string> = [], resting: Iterable<string> = []): Map<string, number> {
    const own = `${workspaceId} `;
    const nameOf = (lane: string) => {
      if (lane.startsWith(own)) return lane.slice(own.length);
      return SHARED.some((kind) => lane.endsWith(` ${kind}`)) ? null : lane;
    };
    const counts = new Map<string, number>();
    for (const [lane, n] of this.#counts) {
      const name = nameOf(lane);
      if (name !== null) counts.set(name, n);
    }
    for (const lane of failing) {
      const name = nameOf(lane);
      if (name !== null) counts.set(name, (counts.get(name) ?? 0) + mostTaken(name) - MOST_OF_FAILING);
    }
    for (const lane of resting) {
      const name = nameOf(lane);
      if (name !== null) counts.set(name, mostTaken(name));
    }
    return counts;
  }
}
