import { Inject, Injectable } from '@nestjs/common';
import type { Touch } from '@haycart/core';
import { Database } from '../../platform/database/database';
import { RememberedNumbers } from './remembered-numbers';

/** A source with the page to which it led. */
export type PageSource = Pick<Touch, 'channel' | 'source' | 'medium' | 'campaign' | 'page'>;

/** The ids of sources. */
@Injectable()
export class TouchSources {
  readonly #numbers = new RememberedNumbers<PageSource>(
    ({ channel, source, medium, campaign, page }) => JSON.stringify([channel, source, medium, campaign, page]),
    (workspaceId, sources) => this.#keep(workspaceId, sources),
  );

  constructor(@Inject(Database) private readonly database: Database) {}

  /** The number of each, in their order. New ones are kept in a transaction of their own: nobody waits for a batch that brings them. */
  idsOf(workspaceId: string, sources: readonly PageSource[]): Promise<number[]> {
    return this.#numbers.of(workspaceId, sources);
  }

  async #keep(workspaceId: string, sources: readonly PageSource[]): Promise<number[]> {
    const rows = await this.database.inWorkspaceOnce<{ id: number }>(
      workspaceId,
      'touch_sources',
      `, given as (select * from unnest($2::text[], $3::text[], $4::text[], $5::text[], $6::text[]) with ordinality g (channel, source, medium, campaign, page, n)),
       kept as (
         insert into touch_source (workspace_id, channel, source, medium, campaign, page)
         select $1::uuid, channel, source, medium, campaign, page from entered, given order by channel, source, medium, campaign, page
         on conflict (workspace_id, digest) do update set channel = excluded.channel
         returning id, channel, source, medium, campaign, page)
       select k.id from given g join kept k on k.channel = g.channel and k.source = g.source and k.medium is not distinct from g.medium
         and k.campaign is not distinct from g.campaign and k.page is not distinct from g.page order by g.n`,
      [
        sources.map(({ channel }) => channel),
        sources.map(({ source }) => source),
        sources.map(({ medium }) => medium),
        sources.map(({ campaign }) => campaign),
        sources.map(({ page }) => page),
      ],
    );
    return rows.map(({ id }) => id);
  }
}
