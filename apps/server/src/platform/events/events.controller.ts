import { Controller, Inject, Sse, type MessageEvent } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { finalize, interval, map, merge, type Observable } from 'rxjs';
import { LIMITS } from '@haycart/core';
import { ByCaller, type Caller } from '../auth/caller';
import { ProblemError } from '../errors/problem-error';
import { Reads } from '../commands/command';
import { Metrics } from '../metrics';
import { Events } from './events';

/** Proxies close streams that stay silent for a minute. */
const BEAT_MS = 25_000;

/** What changes in the workspace, as server-sent events (HTML standard): each names topics, none carries data. */
@ApiTags('events')
@Controller('api/v1/events')
export class EventsController {
  /** How many streams are open, by person or token. */
  readonly #open = new Map<string, number>();

  constructor(
    @Inject(Events) private readonly events: Events,
    @Inject(Metrics) private readonly metrics: Metrics,
  ) {}

  @Sse()
  @Reads('submissions', 'Tells what changes, as it happens')
  stream(@ByCaller() { workspaceId, by }: Caller): Observable<MessageEvent> {
    const own = this.#open.get(by.id) ?? 0;
    if (own >= LIMITS.streamsPerPerson.most)
      throw new ProblemError('too-many', 'Too many pages of yours are open. Close some of them.', undefined, 30);
    this.#open.set(by.id, own + 1);
    this.metrics.watching.inc();
    const changes = this.events.of(workspaceId).pipe(map((topics) => ({ type: 'changed', data: { topics } })));
    const beats = interval(BEAT_MS).pipe(map(() => ({ type: 'beat', data: '' })));
    return merge(changes, beats).pipe(finalize(() => this.#close(by.id)));
  }

  #close(who: string): void {
    this.metrics.watching.dec();
    const left = (this.#open.get(who) ?? 1) - 1;
    if (left) this.#open.set(who, left);
    else this.#open.delete(who);
  }
}
