import { Inject, Injectable } from '@nestjs/common';
import {
  counted,
  listInWords,
  parseKey,
  routeChanges,
  sameJson,
  usesAnswer,
  withAnswerRenamed,
  type Drift,
  type JsonValue,
  type RouteDefinition,
} from '@haycart/core';
import type { DecisionLine, DifferenceGroup, RepairRehearsal } from '@haycart/api';
import { eq } from 'drizzle-orm';
import type { Caller } from '../platform/auth/caller';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { RoutesService, type RouteDefinitions } from '../routes/routes.service';
import { ComparisonsService } from '../runs/comparisons.service';
import { FillInService } from '../runs/fill-in.service';
import { ProfilesService } from '../submissions/profiles.service';
import { SubmissionQueue, type QueuedSubmission } from '../submissions/submission-queue';
import { PeopleService } from '../workspaces/people.service';
import { decisionId, NO_DETAILS, type DecisionDetails, type DecisionSource, type Verdict } from './decision-source';
import { decision } from './tables';

interface DriftLine extends DecisionLine {
  told: Drift;
  intake: { id: string; key: string; name: string };
  routes: RouteDefinitions[];
}

/** A run of a route that is to be repaired, of a submission that came since. */
interface RunSince {
  id: string;
  submission: string;
  outcome: 'written' | 'held' | 'failed';
}

type Renamed = Extract<Drift, { kind: 'renamed' }>;

/** So many of the submissions that came since are looked at before a repair, and mended by it at most. */
const SHOWN = 200;
const MENDED = 5_000;

/** Fields of an intake that changed under routes that read them, and new ones that none reads. */
@Injectable()
export class DriftDecisions implements DecisionSource<DriftLine> {
  constructor(
    @Inject(ProfilesService) private readonly profiles: ProfilesService,
    @Inject(RoutesService) private readonly routes: RoutesService,
    @Inject(ComparisonsService) private readonly comparisons: ComparisonsService,
    @Inject(FillInService) private readonly fillIns: FillInService,
    @Inject(SubmissionQueue) private readonly queue: SubmissionQueue,
    @Inject(PeopleService) private readonly people: PeopleService,
  ) {}

  async lines(tx: WorkspaceTx): Promise<DriftLine[]> {
    const intakes = await this.profiles.drift(tx);
    if (!intakes.length) return [];
    const routes = await this.routes.definitions(tx);
    const decided = new Set(
      (await tx.db.select({ id: decision.id }).from(decision).where(eq(decision.workspaceId, tx.workspaceId))).map(
        ({ id }) => id,
      ),
    );
    return intakes.flatMap(({ id, key, name, kind, drift }) =>
      drift.flatMap((told): DriftLine[] => {
        const concerned = routes.filter((route) => concerns(route, key, told));
        // A form’s new questions are offered to its routes by the form itself.
        if (!concerned.length || (told.kind === 'appeared' && kind === 'form') || decided.has(idOf(id, told)))
          return [];
        return [
          {
            id: idOf(id, told),
            kind: told.kind,
            subject: name,
            detail: detailOf(told),
            count: 'missed' in told ? told.missed : 'filled' in told ? told.filled : 1,
            at: told.since,
            like: `${told.kind} ${key}`,
            told,
            intake: { id, key, name },
            routes: concerned,
          },
        ];
      }),
    );
  }

  async details(tx: WorkspaceTx, { told, intake, routes }: DriftLine): Promise<DecisionDetails> {
    const { fields } = await this.profiles.shape(tx, intake.key);
    const keys = [told.field, ...('became' in told ? [told.became] : [])];
    return {
      ...NO_DETAILS,
      actions: told.kind === 'renamed' ? ['repair', 'leave'] : ['leave'],
      intake: { key: intake.key, name: intake.name },
      routes: routes.map(({ id, name }) => ({ id, name })),
      drift: {
        told,
        fields: keys.flatMap((key) => {
          const field = fields.find((one) => one.key === key);
          return field ? [{ key, label: field.label, filled: field.filled, examples: field.examples }] : [];
        }),
      },
      repair: told.kind === 'renamed' ? await this.#rehearse(tx, told, intake.id, routes) : null,
    };
  }

  async decide(
    tx: WorkspaceTx,
    { told, intake, routes }: DriftLine,
    { action }: Verdict,
    by: Caller['by'],
  ): Promise<string> {
    if (action !== 'repair' || told.kind !== 'renamed')
      throw new ProblemError('refused', 'This can be left, and the routes changed by hand.');
    const name = await this.people.nameOf(tx, by);
    const note = `“${told.field}” comes as “${told.became}” now`;
    let again = 0;
    let filled = 0;
    for (const route of routes) {
      const repaired = repairedBy(route, told);
      await this.routes.rewrite(tx, route.id, repaired, name, note);
      if (!repaired.published || route.state === 'paused') continue;
      const runs = await this.#runsSince(tx, route.id, intake.id, told.since, MENDED);
      const waiting = runs.filter(({ outcome }) => outcome !== 'written');
      again += await this.queue.runThrough(
        tx,
        waiting.map(({ submission }) => submission),
        route.id,
      );
      filled += await this.fillIns.fillIn(
        tx,
        repaired.published,
        runs.filter(({ outcome }) => outcome === 'written').map(({ id }) => id),
        `Filled in what came as “${told.became}” since ${told.field} was renamed`,
        by,
      );
    }
    const done = [
      `${listInWords(routes.map((route) => route.name))} ${routes.length === 1 ? 'reads' : 'read'} “${told.became}” now`,
      ...(again ? [`${counted(again, 'run')} ${again === 1 ? 'goes' : 'go'} again`] : []),
      ...(filled ? [`blanks were filled in ${counted(filled, 'record')}`] : []),
    ];
    return `${listInWords(done)}.`;
  }

  /** What a repair would do to the routes, and to what came since. */
  async #rehearse(
    tx: WorkspaceTx,
    told: Renamed,
    intakeId: string,
    routes: readonly RouteDefinitions[],
  ): Promise<RepairRehearsal> {
    const surroundings = await this.routes.surroundings(tx);
    const rehearsal: RepairRehearsal = { routes: [], runsAgain: 0, fillsIn: 0, groups: [] };
    for (const route of routes) {
      const { draft, published } = repairedBy(route, told);
      const before = published ? route.published! : route.draft;
      const changes = routeChanges(before, (published ?? draft)!, surroundings);
      rehearsal.routes.push({ id: route.id, name: route.name, changes });
      if (!published) continue;
      const runs = await this.#runsSince(tx, route.id, intakeId, told.since, MENDED);
      rehearsal.runsAgain += runs.filter(({ outcome }) => outcome !== 'written').length;
      const written = runs.filter(({ outcome }) => outcome === 'written').map(({ id }) => id);
      if (written.length) rehearsal.fillsIn += await this.fillIns.count(tx, published, written);
      const submissions = await this.#submissions(tx, runs.slice(0, SHOWN));
      merge(rehearsal.groups, await this.comparisons.differences(tx, before, published, submissions));
    }
    return rehearsal;
  }

  #runsSince(tx: WorkspaceTx, route: string, intake: string, since: string, most: number): Promise<RunSince[]> {
    return tx.statement<RunSince & Record<string, unknown>>(
      'runs_since_drift',
      `select r.id, r.submission_id as submission, r.outcome from run r join submission s on s.workspace_id = r.workspace_id and s.id = r.submission_id
       where r.workspace_id = $1 and r.route_id = $2 and s.intake_id = $3 and s.received_at >= $4 and r.outcome in ('written', 'held', 'failed')
       order by s.received_at desc limit $5`,
      [tx.workspaceId, route, intake, since, most],
    );
  }

  #submissions(tx: WorkspaceTx, runs: readonly RunSince[]): Promise<(QueuedSubmission & { key: string })[]> {
    return tx.statement(
      'submissions_since_drift',
      `select s.*, i.key from submission s join intake i on i.workspace_id = s.workspace_id and i.id = s.intake_id
       where s.workspace_id = $1 and s.id = any($2::uuid[]) order by s.received_at desc`,
      [tx.workspaceId, runs.map(({ submission }) => submission)],
    );
  }
}

/** What a route says after a repair: of draft and published those that change. */
function repairedBy(
  { draft, published }: RouteDefinitions,
  { field, became }: Renamed,
): { draft: RouteDefinition | null; published: RouteDefinition | null } {
  const repaired = (route: RouteDefinition | null) => {
    const after = route && withAnswerRenamed(route, field, became);
    return after && !sameJson(after as unknown as JsonValue, route as unknown as JsonValue) ? after : null;
  };
  return { draft: repaired(draft), published: repaired(published) };
}

function concerns(route: RouteDefinitions, intake: string, told: Drift): boolean {
  const versions = [route.draft, ...(route.published ? [route.published] : [])].filter(({ from }) =>
    from.includes(intake),
  );
  switch (told.kind) {
    case 'renamed': {
      const { draft, published } = repairedBy(route, told);
      return versions.length > 0 && (published ?? (route.published ? null : draft)) !== null;
    }
    case 'appeared':
      return versions.length > 0 && !versions.some((version) => usesAnswer(version, told.field));
    default:
      return versions.some((version) => usesAnswer(version, told.field));
  }
}

function idOf(intake: string, told: Drift): string {
  switch (told.kind) {
    case 'renamed':
      return decisionId(told.kind, intake, told.field, told.became, told.since);
    case 'changed':
      return decisionId(told.kind, intake, told.field, told.from, told.to);
    default:
      return decisionId(told.kind, intake, told.field, told.since);
  }
}

function detailOf(told: Drift): string {
  switch (told.kind) {
    case 'renamed':
      return `${shortKey(told.field)} → ${shortKey(told.became)}`;
    case 'changed':
      return `${shortKey(told.field)}: ${told.from} → ${told.to}`;
    default:
      return shortKey(told.field);
  }
}

/** The last name of a key, which tells it from its neighbours. */
function shortKey(key: string): string {
  return String(parseKey(key)?.at(-1) ?? key);
}

function merge(groups: DifferenceGroup[], more: readonly DifferenceGroup[]): void {
  for (const group of more) {
    const same = groups.find(({ kind, text }) => kind === group.kind && text === group.text);
    if (same) same.count += group.count;
    else groups.push(group);
  }
}
