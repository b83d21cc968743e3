import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import type { Availability } from '@haycart/core';
import { Database } from '../platform/database/database';
import { Events } from '../platform/events/events';
import { Outgoing } from '../platform/outgoing/outgoing';
import { posted, type Tried } from '../platform/outgoing/posted';
import { ShortMemory } from '../platform/short-memory';
import { PeopleService } from '../workspaces/people.service';
import { ChannelsService } from './channels.service';

/** A message for a channel, or for a phone number. */
export interface Message {
  to: { channel: string } | { number: string };
  text: string;
  /** The same for each try, so that a receiver that knows of such keys takes it once. */
  key: string;
}

/** Where something is posted, with the number that it is for where a gateway sends it; or why it cannot be. */
type Target = { address: string; number: string | null; perMinute: number | null } | { refused: string };

/** Sends messages: to a chat as `{text}`, to a phone as `{to, text}` by the workspace's gateway. */
@Injectable()
export class MessagesService implements OnModuleInit {
  readonly #known = new ShortMemory<Exclude<Target, { refused: string }>>(1_000);

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(ChannelsService) private readonly channels: ChannelsService,
    @Inject(Events) private readonly events: Events,
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(Outgoing) private readonly outgoing: Outgoing,
  ) {}

  onModuleInit(): void {
    this.events.all.subscribe(({ topics }) => {
      if (topics.includes('channels')) this.#known.forgetAll();
    });
  }

  async send(workspaceId: string, { to, text, key }: Message, stopping: AbortSignal): Promise<Tried> {
    const target = await this.#target(workspaceId, to);
    if ('refused' in target) return { ok: false, why: target.refused, again: false };
    const body = JSON.stringify(target.number === null ? { text } : { to: target.number, text });
    const headers = { 'content-type': 'application/json', 'idempotency-key': key };
    return posted(this.outgoing, { to: target.address, body, headers }, stopping);
  }

  /** How many messages a receiver takes a minute; `null` for any number. */
  async perMinute(workspaceId: string, to: Message['to']): Promise<number | null> {
    const target = await this.#target(workspaceId, to);
    return 'refused' in target ? null : target.perMinute;
  }

  /** When whoever gets a message reads it; `undefined` where nothing is known of that. */
  availability(workspaceId: string, who: { channel: string } | { person: string }): Promise<Availability | undefined> {
    return this.database.inWorkspace(workspaceId, async (tx) =>
      'channel' in who
        ? this.channels.availability(tx, who.channel)
        : ((await this.people.known(tx))[who.person] ?? undefined),
    );
  }

  /** Where messages to somebody are posted: looked up once for many that are sent at once. */
  async #target(workspaceId: string, to: Message['to']): Promise<Target> {
    const key = `${workspaceId} ${'channel' in to ? `channel ${to.channel}` : `number ${to.number}`}`;
    const known = this.#known.get(key);
    if (known) return known;
    return this.database.inWorkspace(workspaceId, async (tx) => {
      const channel = 'channel' in to ? await this.channels.reached(tx, to.channel) : null;
      if ('channel' in to && !channel) return { refused: `There is no channel “${to.channel}” any more.` };
      if (channel?.by === 'chat') return this.#known.keep(key, { ...channel, number: null });
      const address = await this.channels.gatewayAddress(tx);
      if (address === null) return { refused: 'Nothing sends text messages: set up what does under Set up, Channels.' };
      const number = 'number' in to ? to.number : (channel as { number: string }).number;
      return this.#known.keep(key, { address, number, perMinute: channel?.perMinute ?? null });
    });
  }
}
