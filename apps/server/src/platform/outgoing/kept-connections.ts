import { Agent as PlainAgent } from 'node:http';
import { Agent as SecureAgent } from 'node:https';

/** To so many places connections are kept; the one that was used longest ago makes room. */
const MOST_PLACES = 200;
/** How long a connection is kept that nothing goes through, in milliseconds: less than most servers keep theirs. */
const IDLE_MS = 4_000;
const SOCKETS = { keepAlive: true, maxFreeSockets: 8, timeout: IDLE_MS, scheduling: 'lifo' } as const;

type Agent = PlainAgent | SecureAgent;

/** Connections that stay open between what is sent, by the place that they lead to: an origin at one address. */
export class KeptConnections {
  readonly #agents = new Map<string, Agent>();

  to(place: string, secure: boolean): Agent {
    const agent = this.#agents.get(place) ?? (secure ? new SecureAgent(SOCKETS) : new PlainAgent(SOCKETS));
    // The latest stands last.
    this.#agents.delete(place);
    this.#agents.set(place, agent);
    const [oldest] = this.#agents.keys();
    if (this.#agents.size > MOST_PLACES) {
      this.#agents.get(oldest!)!.destroy();
      this.#agents.delete(oldest!);
    }
    return agent;
  }

  close(): void {
    for (const agent of this.#agents.values()) agent.destroy();
    this.#agents.clear();
  }
}
