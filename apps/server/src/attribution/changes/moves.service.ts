import { setImmediate } from 'node:timers/promises';
import { Inject, Injectable } from '@nestjs/common';
import { sourceOfWay, type Destination, type Source, type Way } from '@haycart/core';
import type { WorkspaceTx } from '../../platform/database/database';
import type { PageSource } from '../../records/history/touch-sources';
import { WaysOfOld } from './ways-of-old.service';

/** Visits that the rules would give another source. */
export interface Move {
  way: number;
  from: number;
  before: Source;
  after: PageSource;
  touches: number;
}

interface Group extends Source {
  id: number;
  way: Way;
  from: number;
  touches: number;
}

/** The number of ways read and decided at once. */
const AT_ONCE = 2_000;
const BEGINNING = new Date(0);

/** Which past visits would get another source by the rules. */
@Injectable()
export class MovesService {
  constructor(@Inject(WaysOfOld) private readonly old: WaysOfOld) {}

  /** Yields, for each batch of ways, the moves and the number of visits looked at. Visits corrected by a person are left out. */
  async *moves(
    tx: WorkspaceTx,
    destination: Destination,
    since = BEGINNING,
  ): AsyncGenerator<{ looked: number; moves: Move[] }> {
    await this.old.look(tx, destination);
    let after = 0;
    for (;;) {
      const groups = await tx.statement<Group>('ways_by_source', WAYS_SQL, [tx.workspaceId, after, since]);
      const last = groups.at(-1)?.id;
      if (last === undefined) return;
      const looked = groups.reduce((sum, { touches }) => sum + touches, 0);
      yield { looked, moves: groups.flatMap((group) => moveOf(group, destination)) };
      after = last;
      // Lets other requests run between two batches.
      await setImmediate();
    }
  }
}

/** Ordered by id. Ways without visits are included, so that the last id tells where the next batch begins. */
const WAYS_SQL = `select w.id, w.way, v.source_id as "from", coalesce(v.touches, 0) as touches, s.channel, s.source, s.medium, s.campaign
  from (select id, way from touch_way where workspace_id = $1 and id > $2 order by id limit ${AT_ONCE}) w
  left join lateral (
    select source_id, count(*)::int as touches from visit
    where workspace_id = $1 and way_id = w.id and not corrected and at >= $3 group by 1) v on true
  left join touch_source s on s.workspace_id = $1 and s.id = v.source_id order by w.id`;

function moveOf(
  { id, way, from, touches, channel, source, medium, campaign }: Group,
  destination: Destination,
): Move[] {
  if (!touches) return [];
  const before = { channel, source, medium, campaign };
  const after = sourceOfWay(way, destination);
  const same = (Object.keys(before) as (keyof Source)[]).every((part) => before[part] === after[part]);
  return same ? [] : [{ way: id, from, before, after: { ...after, page: way.page ?? null }, touches }];
}
