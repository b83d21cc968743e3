import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import type { RouteShape } from '@haycart/api';
import type { WorkspaceTx } from '../../platform/database/database';
import { ProblemError } from '../../platform/errors/problem-error';
import { Events } from '../../platform/events/events';
import { SubmissionQueue } from '../../submissions/submission-queue';
import { LEFT_OUT, leaveOutWhatWaits, routeWhatWaits } from './held-by-pause';
import { RoutesService } from '../../routes/routes.service';

/** The most submissions that a route catches up on in one act. */
const MOST = 500_000;

/** Pausing and resuming a route, and catching up on what it has missed. */
@Injectable()
export class CatchingUpService implements OnModuleInit {
  constructor(
    @Inject(RoutesService) private readonly routes: RoutesService,
    @Inject(SubmissionQueue) private readonly queue: SubmissionQueue,
    @Inject(Events) private readonly events: Events,
  ) {}

  onModuleInit(): void {
    this.routes.whenResumed(async (tx, id) => void (await routeWhatWaits(tx, this.queue, id)));
  }

  async pause(tx: WorkspaceTx, id: string): Promise<RouteShape> {
    await this.routes.one(tx, id);
    await this.routes.setState(tx, id, 'paused');
    await this.events.tell(tx, 'routes');
    return this.routes.one(tx, id);
  }

  /**
   * Lets a route run again.
   *
   * @param waiting What becomes of what arrived meanwhile: it is routed, beginning with it, or left out.
   */
  async resume(tx: WorkspaceTx, id: string, waiting: 'route' | 'leave-out' = 'route'): Promise<RouteShape> {
    const { version } = await this.routes.one(tx, id);
    if (version === null) throw new ProblemError('conflict', 'The route was never published. Publish it first.');
    await this.routes.setState(tx, id, 'live');
    if (waiting === 'route') await routeWhatWaits(tx, this.queue, id);
    else await leaveOutWhatWaits(tx, id);
    await this.events.tell(tx, 'routes', 'submissions', 'runs');
    return this.routes.one(tx, id);
  }

  /**
   * The submissions of a route's intakes that arrived in a time and that it has not run: from before it was there, or
   * while it was paused.
   *
   * @param since ISO 8601, with it.
   * @param before ISO 8601, without it.
   */
  async missed(tx: WorkspaceTx, id: string, since: string, before: string): Promise<string[]> {
    const { published } = await this.routes.one(tx, id);
    if (!published) throw new ProblemError('conflict', 'The route was never published. Publish it first.');
    const rows = await tx.statement<{ id: string }>(
      'missed_by_route',
      `select s.id from submission s join intake i on i.workspace_id = s.workspace_id and i.id = s.intake_id
       where s.workspace_id = $1 and i.key = any($2::text[]) and s.received_at >= $4 and s.received_at < $5 and s.state not in ('set-aside', 'cancelled')
         and not exists (select 1 from run r where r.workspace_id = s.workspace_id and r.submission_id = s.id and r.route_id = $3
           and r.outcome <> 'held' and r.reason_code is distinct from $7)
       order by s.received_at, s.id limit $6`,
      [tx.workspaceId, published.from, id, since, before, MOST, LEFT_OUT],
    );
    return rows.map((row) => row.id);
  }

  /**
   * Routes what a live route has missed in a time. Returns how many are on their way.
   *
   * @param send Whether its follow-ups send what they send; otherwise it stands in the outbox, unsent.
   */
  async catchUp(tx: WorkspaceTx, id: string, since: string, before: string, send = false): Promise<number> {
    const { state } = await this.routes.one(tx, id);
    if (state === 'paused') throw new ProblemError('conflict', 'The route is paused. Resume it first.');
    const queued = await this.queue.runThrough(tx, await this.missed(tx, id, since, before), id, { quiet: !send });
    await this.events.tell(tx, 'submissions');
    return queued;
  }
}
