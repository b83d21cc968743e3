import { Inject, Injectable } from '@nestjs/common';
import { counted, routeChanges, sameJson, type JsonValue, type RouteDefinition } from '@haycart/core';
import type { DifferenceGroup, RepairRehearsal } from '@haycart/api';
import type { Caller } from '../../../platform/auth/caller';
import type { WorkspaceTx } from '../../../platform/database/database';
import { RoutesService, type RouteDefinitions } from '../../../routes/routes.service';
import { ComparisonsService } from '../../../runs/comparisons.service';
import { FillInService } from '../../../runs/fill-in.service';
import { SubmissionQueue, type QueuedSubmission } from '../../../submissions/submission-queue';
import { PeopleService } from '../../../workspaces/people.service';

/** A route with what it would say after a repair: of draft and published those that change. */
export interface Repair {
  route: RouteDefinitions;
  draft: RouteDefinition | null;
  published: RouteDefinition | null;
}

/** Which submissions a repair comes too late for: those of an intake since a time (ISO 8601). */
export interface Meanwhile {
  intake: string;
  since: string;
}

/** A run of a route that is to be repaired, of a submission that came meanwhile. */
interface RunMeanwhile {
  id: string;
  submission: string;
  outcome: 'written' | 'held' | 'failed';
}

/** So many of the submissions that came meanwhile are looked at before a repair, and mended by it at most. */
const SHOWN = 200;
const MENDED = 5_000;

/** Repairs routes after something changed at a sender: shown before, and nothing of what came meanwhile is lost. */
@Injectable()
export class RepairsService {
  constructor(
    @Inject(RoutesService) private readonly routes: RoutesService,
    @Inject(ComparisonsService) private readonly comparisons: ComparisonsService,
    @Inject(FillInService) private readonly fillIns: FillInService,
    @Inject(SubmissionQueue) private readonly queue: SubmissionQueue,
    @Inject(PeopleService) private readonly people: PeopleService,
  ) {}

  /** What repairs would do to the routes, and to what came meanwhile. */
  async rehearse(tx: WorkspaceTx, repairs: readonly Repair[], meanwhile: Meanwhile): Promise<RepairRehearsal> {
    const surroundings = await this.routes.surroundings(tx);
    const rehearsal: RepairRehearsal = { routes: [], runsAgain: 0, fillsIn: 0, groups: [] };
    for (const { route, draft, published } of repairs) {
      const before = published ? route.published! : route.draft;
      const changes = routeChanges(before, (published ?? draft)!, surroundings);
      rehearsal.routes.push({ id: route.id, name: route.name, changes });
      if (!published) continue;
      const runs = await this.#runs(tx, route.id, meanwhile);
      rehearsal.runsAgain += runs.filter(({ outcome }) => outcome !== 'written').length;
      rehearsal.fillsIn += await this.fillIns.count(tx, published, writtenOf(runs));
      const submissions = await this.#submissions(tx, runs.slice(0, SHOWN));
      merge(rehearsal.groups, await this.comparisons.differences(tx, before, published, submissions));
    }
    return rehearsal;
  }

  /** Rewrites the routes, has what failed or was held go again, and fills in what was missed. Answers that in phrases. */
  async carryOut(
    tx: WorkspaceTx,
    repairs: readonly Repair[],
    meanwhile: Meanwhile,
    note: string,
    by: Caller['by'],
  ): Promise<string[]> {
    const name = await this.people.nameOf(tx, by);
    let again = 0;
    let filled = 0;
    let more = false;
    for (const { route, draft, published } of repairs) {
      await this.routes.rewrite(tx, route.id, { draft, published }, name, note);
      if (!published || route.state === 'paused') continue;
      const runs = await this.#runs(tx, route.id, meanwhile);
      more ||= runs.length === MENDED;
      const waiting = runs.filter(({ outcome }) => outcome !== 'written').map(({ submission }) => submission);
      again += await this.queue.runThrough(tx, waiting, route.id);
      filled += await this.fillIns.fillIn(tx, published, writtenOf(runs), `Filled in what was missed: ${note}`, by);
    }
    return [
      ...(again ? [`${counted(again, 'run')} ${again === 1 ? 'goes' : 'go'} again`] : []),
      ...(filled ? [`blanks were filled in ${counted(filled, 'record')}`] : []),
      ...(more ? [`what is older than the latest ${counted(MENDED, 'run')} stays as it is`] : []),
    ];
  }

  #runs(tx: WorkspaceTx, route: string, { intake, since }: Meanwhile): Promise<RunMeanwhile[]> {
    return tx.statement<RunMeanwhile & Record<string, unknown>>(
      'runs_meanwhile',
      `select r.id, r.submission_id as submission, r.outcome from run r join submission s on s.workspace_id = r.workspace_id and s.id = r.submission_id
       where r.workspace_id = $1 and r.route_id = $2 and s.intake_id = $3 and s.received_at >= $4 and r.outcome in ('written', 'held', 'failed')
       order by s.received_at desc limit $5`,
      [tx.workspaceId, route, intake, since, MENDED],
    );
  }

  #submissions(tx: WorkspaceTx, runs: readonly RunMeanwhile[]): Promise<(QueuedSubmission & { key: string })[]> {
    return tx.statement(
      'submissions_meanwhile',
      `select s.*, i.key from submission s join intake i on i.workspace_id = s.workspace_id and i.id = s.intake_id
       where s.workspace_id = $1 and s.id = any($2::uuid[]) order by s.received_at desc`,
      [tx.workspaceId, runs.map(({ submission }) => submission)],
    );
  }
}

/** A repair of a route by a change to each of its definitions; `null` where nothing would change. */
export function repairOf(
  route: RouteDefinitions,
  change: (definition: RouteDefinition) => RouteDefinition,
): Repair | null {
  const changed = (definition: RouteDefinition | null) => {
    const after = definition && change(definition);
    return after && !sameJson(after as unknown as JsonValue, definition as unknown as JsonValue) ? after : null;
  };
  const repair = { route, draft: changed(route.draft), published: changed(route.published) };
  return repair.published || (!route.published && repair.draft) ? repair : null;
}

function writtenOf(runs: readonly RunMeanwhile[]): string[] {
  return runs.filter(({ outcome }) => outcome === 'written').map(({ id }) => id);
}

function merge(groups: DifferenceGroup[], more: readonly DifferenceGroup[]): void {
  for (const group of more) {
    const same = groups.find(({ kind, text }) => kind === group.kind && text === group.text);
    if (same) same.count += group.count;
    else groups.push(group);
  }
}
