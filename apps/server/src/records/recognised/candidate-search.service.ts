import { Inject, Injectable, type OnApplicationShutdown } from '@nestjs/common';
import type { Destination, FoundPair, Sought } from '@haycart/core';
import type { Config } from '../../platform/config';
import type { WorkspaceTx } from '../../platform/database/database';
import { Thread } from '../../platform/threads/thread';
import { CONFIG } from '../../platform/tokens';
import { foundAround, likelyCandidates, type Candidates, type LookedAround } from './candidates';

type Likeness = Destination['likeness'];

/** Who may be meant. */
export interface CandidatesAsked {
  workspaceId: string;
  sought: readonly Sought[];
  /** The workspace’s models, where they are others than those of the question before. */
  learned?: { likeness: Likeness };
}

/** Who may be the same as some records. */
export interface PairsAsked {
  workspaceId: string;
  around: LookedAround;
}

type SearchThread = Thread<CandidatesAsked | PairsAsked, Candidates | FoundPair[]>;

/** What the thread knows from its beginning. */
export interface CandidateSearchData {
  databaseUrl: string;
  connections: number;
}

/** Fewer are found and compared sooner than a thread is asked. */
const FEW = 20;
/** As many batches are routed at once, and one more for what arrived. */
const CONNECTIONS = 3;

/** Finds who may be meant by what is looked for, and who may be the same. Many are looked for on a thread beside the server’s own. */
@Injectable()
export class CandidateSearch implements OnApplicationShutdown {
  #thread: SearchThread | null = null;
  /** The models that the thread knows, by workspace. */
  readonly #told = new Map<string, Likeness>();

  constructor(@Inject(CONFIG) private readonly config: Config) {}

  /**
   * Those that a rule may take or ask about, among what is committed: for who has changed nothing in this transaction yet,
   * and has locked what is looked for.
   */
  async likely(tx: WorkspaceTx, sought: readonly Sought[], likeness: Likeness): Promise<Candidates> {
    if (sought.length < FEW) return likelyCandidates(tx, sought, likeness);
    const thread = this.#running();
    const { workspaceId } = tx;
    const news = this.#told.get(workspaceId) !== likeness;
    this.#told.set(workspaceId, likeness);
    return thread.ask<Candidates>({ workspaceId, sought, ...(news ? { learned: { likeness } } : {}) });
  }

  /** The pairs of some records with all that may be the same, among what is committed. */
  async pairsAround(tx: WorkspaceTx, around: LookedAround): Promise<FoundPair[]> {
    if (around.ids.length < FEW) return foundAround(tx, around);
    return this.#running().ask<FoundPair[]>({ workspaceId: tx.workspaceId, around });
  }

  async onApplicationShutdown(): Promise<void> {
    await this.#thread?.stop();
  }

  #running(): SearchThread {
    if (this.#thread && !this.#thread.ended) return this.#thread;
    this.#told.clear();
    const data: CandidateSearchData = { databaseUrl: this.config.databaseUrl, connections: CONNECTIONS };
    this.#thread = new Thread('candidates', data);
    return this.#thread;
  }
}
