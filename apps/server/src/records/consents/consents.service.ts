import { Inject, Injectable } from '@nestjs/common';
import type { ConsentChannel, ConsentState } from '@haycart/core';
import type { ConsentShape } from '@haycart/api';
import type { Caller } from '../../platform/auth/caller';
import type { WorkspaceTx } from '../../platform/database/database';
import { Events } from '../../platform/events/events';
import { newId } from '../../platform/new-id';
import { PeopleService } from '../../workspaces/people.service';
import { consent } from '../activities/tables';
import { survivorsOf } from '../merged-records';
import { CONSENTS_SQL } from './consents-sql';

export interface NewConsent {
  channel: ConsentChannel;
  state: 'given' | 'withdrawn';
  words: string;
  place: string;
}

/** What holds for a channel of a contact. */
export interface HeldConsent {
  /** The contact, or the one that it became part of. */
  contact: string;
  /** `null` where nothing was ever said. */
  state: ConsentState | null;
  words: string;
}

/** What contacts agreed to or withdrew. Nothing of it is ever changed. */
@Injectable()
export class ConsentsService {
  constructor(
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(Events) private readonly events: Events,
  ) {}

  /** Keeps what a person noted down. */
  async add(
    tx: WorkspaceTx,
    contactId: string,
    given: NewConsent,
    by: Caller['by'],
    at = new Date(),
  ): Promise<ConsentShape> {
    return this.#keep(tx, contactId, given, await this.people.nameOf(tx, by), at);
  }

  /** Keeps what the contact said, who is not signed in: `by` is the address where the mail went. */
  addOwn(tx: WorkspaceTx, contactId: string, given: NewConsent, by: string): Promise<ConsentShape> {
    return this.#keep(tx, contactId, given, by, new Date());
  }

  /** What holds, read through the merges of the contact; `null` where the contact is gone. */
  async held(tx: WorkspaceTx, id: string, channel: ConsentChannel): Promise<HeldConsent | null> {
    const contact = (await survivorsOf(tx, [id])).get(id) ?? id;
    const [row] = await tx.statement<{ state: ConsentState | null; words: string | null }>(
      'held_consent',
      `select said.state, said.words from contact c
       left join lateral (select state, words from (${CONSENTS_SQL}) q where q.channel = $3 limit 1) said on true
       where c.workspace_id = $1 and c.id = $2`,
      [tx.workspaceId, contact, channel],
    );
    return row ? { contact, state: row.state, words: row.words ?? '' } : null;
  }

  async #keep(tx: WorkspaceTx, contactId: string, given: NewConsent, by: string, at: Date): Promise<ConsentShape> {
    const row = { id: newId(), contactId, ...given, by, at };
    await tx.db.insert(consent).values({ workspaceId: tx.workspaceId, ...row });
    await this.events.tell(tx, 'records');
    return { id: row.id, ...given, by, at: at.toISOString() };
  }
}
