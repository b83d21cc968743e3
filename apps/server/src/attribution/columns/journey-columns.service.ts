import { Injectable } from '@nestjs/common';
import { JourneyColumns, LIMITS } from '@haycart/core';
import type { WorkspaceTx } from '../../platform/database/database';
import { readPortion } from './read-portion';

interface Kept {
  columns: JourneyColumns;
  /** Journeys made up to this generation are in it. */
  generation: number;
}

/**
 * The journeys of workspaces in memory, by column. Each report takes in what changed since the one before it. Workspaces
 * that were asked for longest ago are given up when there are too many.
 */
@Injectable()
export class JourneyColumnsService {
  /** Those asked for longest ago first. */
  readonly #kept = new Map<string, Kept>();
  /** What is being read, by workspace: one after the other. */
  readonly #reading = new Map<string, Promise<unknown>>();

  /** Returns the journeys of a workspace as the transaction sees them, or newer. */
  async current(tx: WorkspaceTx): Promise<JourneyColumns> {
    const { workspaceId } = tx;
    const before = this.#reading.get(workspaceId);
    const reading = (before ?? Promise.resolve()).catch(() => undefined).then(() => this.#read(tx));
    this.#reading.set(workspaceId, reading);
    try {
      return await reading;
    } finally {
      if (this.#reading.get(workspaceId) === reading) this.#reading.delete(workspaceId);
    }
  }

  async #read(tx: WorkspaceTx): Promise<JourneyColumns> {
    const { columns, generation } = this.#kept.get(tx.workspaceId) ?? { columns: new JourneyColumns(), generation: 0 };
    const [newest] = await tx.statement<{ generation: number }>(
      'newest_journeys',
      'select coalesce(max(generation), 0)::float8 as generation from journey where workspace_id = $1',
      [tx.workspaceId],
    );
    if (newest!.generation <= generation) {
      this.#keep(tx.workspaceId, { columns, generation });
      return columns;
    }
    for (let nr = 0; ;) {
      const portion = await readPortion(tx, { generation, nr });
      if (!portion) break;
      columns.put(portion);
      nr = portion.nr.at(-1)!;
    }
    this.#keep(tx.workspaceId, { columns, generation: newest!.generation });
    return columns;
  }

  /** Gives up others until there is room. One that is too large by itself is read again each time. */
  #keep(workspaceId: string, kept: Kept): void {
    this.#kept.delete(workspaceId);
    this.#kept.set(workspaceId, kept);
    let bytes = [...this.#kept.values()].reduce((sum, { columns }) => sum + columns.bytes, 0);
    for (const [id, { columns }] of this.#kept) {
      if (bytes <= LIMITS.journeysInMemory.most) break;
      this.#kept.delete(id);
      bytes -= columns.bytes;
    }
  }
}
