import { Controller, Inject, Sse, type MessageEvent } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { finalize, interval, map, merge, type Observable } from 'rxjs';
import { ByCaller, type Caller } from '../auth/caller';
import { Metrics } from '../metrics';
import { Events } from './events';

/** Proxies close streams that stay silent for a minute. */
const BEAT_MS = 25_000;

/** What changes in the workspace, as server-sent events (HTML standard): each names topics, none carries data. */
@ApiTags('events')
@Controller('api/v1/events')
export class EventsController {
  constructor(
    @Inject(Events) private readonly events: Events,
    @Inject(Metrics) private readonly metrics: Metrics,
  ) {}

  @Sse()
  stream(@ByCaller() { workspaceId }: Caller): Observable<MessageEvent> {
    this.metrics.watching.inc();
    const changes = this.events.of(workspaceId).pipe(map((topics) => ({ type: 'changed', data: { topics } })));
    const beats = interval(BEAT_MS).pipe(map(() => ({ type: 'beat', data: '' })));
    return merge(changes, beats).pipe(finalize(() => this.metrics.watching.dec()));
  }
}
