import { Inject, Injectable } from '@nestjs/common';
import type { Destination, RouteDefinition } from '@haycart/core';
import { IntakesService } from '../intakes/intakes.service';
import type { WorkspaceTx } from '../platform/database/database';
import { DestinationService } from '../destination/destination.service';

/** A published route as the workers use it. */
export interface PublishedRoute {
  id: string;
  name: string;
  state: 'live' | 'paused';
  version: number;
  definition: RouteDefinition;
}

/** Everything routing depends on, as it stood at one revision of the workspace. */
export interface RouteBook {
  revision: number;
  routes: PublishedRoute[];
  destination: Destination;
  intakes: ReadonlyMap<string, { key: string; name: string }>;
}

/** Keeps each workspace's route book in memory, and opens it anew when the workspace's revision has moved. */
@Injectable()
export class RouteBookService {
  readonly #books = new Map<string, RouteBook>();

  constructor(
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(IntakesService) private readonly intakes: IntakesService,
  ) {}

  async open(tx: WorkspaceTx): Promise<RouteBook> {
    for (;;) {
      const revision = await revisionOf(tx);
      const known = this.#books.get(tx.workspaceId);
      if (known?.revision === revision) return known;
      const book: RouteBook = {
        revision,
        routes: await publishedRoutes(tx),
        destination: await this.destinations.load(tx),
        intakes: new Map((await this.intakes.all(tx)).map(({ id, key, name }) => [id, { key, name }])),
      };
      // Each statement sees what is committed by then: routes and stages of two revisions do not go together.
      if ((await revisionOf(tx)) !== revision) continue;
      // Only what is committed is kept: a change under way may yet be undone, and its revision be another's.
      tx.afterCommit(() => this.#books.set(tx.workspaceId, book));
      return book;
    }
  }
}

async function revisionOf(tx: WorkspaceTx): Promise<number> {
  const [row] = await tx.statement<{ revision: number }>('revision', 'select revision from workspace where id = $1', [
    tx.workspaceId,
  ]);
  return row!.revision;
}

async function publishedRoutes(tx: WorkspaceTx): Promise<PublishedRoute[]> {
  return tx.statement<PublishedRoute>(
    'published_routes',
    `select r.id, r.name, r.state, r.version, v.definition from route r
     join route_version v on v.workspace_id = r.workspace_id and v.route_id = r.id and v.version = r.version
     where r.workspace_id = $1 order by r.created_at, r.id`,
    [tx.workspaceId],
  );
}
