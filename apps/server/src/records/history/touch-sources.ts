import { Inject, Injectable } from '@nestjs/common';
import type { Touch } from '@haycart/core';
import { Database } from '../../platform/database/database';

type WayToCome = Pick<Touch, 'channel' | 'source' | 'medium' | 'campaign' | 'page'>;

/** How many are remembered; strangers may come by anything. */
const MOST = 20_000;

/** The numbers of ways to come by, remembered since they never change. */
@Injectable()
export class TouchSources {
  readonly #known = new Map<string, number>();

  constructor(@Inject(Database) private readonly database: Database) {}

  /** The number of each, in their order. New ones are made in a transaction of their own: nobody waits for a batch that brings them. */
  async idsOf(workspaceId: string, ways: readonly WayToCome[]): Promise<number[]> {
    const keys = ways.map((way) => keyOf(workspaceId, way));
    const missing = new Map(ways.flatMap((way, index) => (this.#known.has(keys[index]!) ? [] : [[keys[index]!, way]])));
    if (missing.size) {
      if (this.#known.size + missing.size > MOST) this.#known.clear();
      for (const { id, ...way } of await this.#made(workspaceId, [...missing.values()]))
        this.#known.set(keyOf(workspaceId, way), id);
      // What was forgotten to make room is asked for again.
      if (keys.some((key) => !this.#known.has(key))) return this.idsOf(workspaceId, ways);
    }
    return keys.map((key) => this.#known.get(key)!);
  }

  #made(workspaceId: string, ways: readonly WayToCome[]): Promise<(WayToCome & { id: number })[]> {
    return this.database.inWorkspaceOnce(
      workspaceId,
      'touch_sources',
      `insert into touch_source (workspace_id, channel, source, medium, campaign, page)
       select $1::uuid, w.* from entered, unnest($2::text[], $3::text[], $4::text[], $5::text[], $6::text[]) w (channel, source, medium, campaign, page)
       order by channel, source, medium, campaign, page
       on conflict (workspace_id, digest) do update set channel = excluded.channel
       returning id, channel, source, medium, campaign, page`,
      [
        ways.map(({ channel }) => channel),
        ways.map(({ source }) => source),
        ways.map(({ medium }) => medium),
        ways.map(({ campaign }) => campaign),
        ways.map(({ page }) => page),
      ],
    );
  }
}

function keyOf(workspaceId: string, { channel, source, medium, campaign, page }: WayToCome): string {
  return JSON.stringify([workspaceId, channel, source, medium, campaign, page]);
}
