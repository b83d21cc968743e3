import { Inject, Injectable } from '@nestjs/common';
import {
  listInWords,
  parseKey,
  suggestFills,
  templatesNaming,
  usesAnswer,
  withAnswerRenamed,
  type Destination,
  type Drift,
  type RouteDefinition,
  type SeenField,
} from '@haycart/core';
import type { DecisionLine, RepairRehearsal } from '@haycart/api';
import { eq } from 'drizzle-orm';
import type { Caller } from '../platform/auth/caller';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { RoutesService, type RouteDefinitions } from '../routes/routes.service';
import { ProfilesService } from '../submissions/profiles.service';
import { DestinationService } from '../workspaces/destination.service';
import { decisionId, NO_DETAILS, type DecisionDetails, type DecisionSource, type Verdict } from './decision-source';
import { repairOf, RepairsService, type Repair } from './repairs.service';
import { decision } from './tables';

interface DriftLine extends DecisionLine {
  told: Drift;
  intake: { id: string; key: string; name: string };
  routes: RouteDefinitions[];
}

/** Fields of an intake that changed under routes that read them, and new ones that none reads. */
@Injectable()
export class DriftDecisions implements DecisionSource<DriftLine> {
  constructor(
    @Inject(ProfilesService) private readonly profiles: ProfilesService,
    @Inject(RoutesService) private readonly routes: RoutesService,
    @Inject(RepairsService) private readonly repairs: RepairsService,
    @Inject(DestinationService) private readonly destinations: DestinationService,
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

  async count(tx: WorkspaceTx): Promise<number> {
    return (await this.lines(tx)).length;
  }

  async details(tx: WorkspaceTx, { told, intake, routes }: DriftLine): Promise<DecisionDetails> {
    const { fields } = await this.profiles.shape(tx, intake.key);
    const keys = [told.field, ...('became' in told ? [told.became] : [])];
    const repairs = await this.#repairs(tx, told, intake.key, routes);
    return {
      ...NO_DETAILS,
      actions: repairs.length ? ['repair', 'leave'] : ['leave'],
      intake: { key: intake.key, name: intake.name },
      routes: routes.map(({ id, name }) => ({ id, name })),
      drift: {
        told,
        fields: keys.flatMap((key) => {
          const field = fields.find((one) => one.key === key);
          return field ? [{ key, label: field.label, filled: field.filled, examples: field.examples }] : [];
        }),
      },
      repair: repairs.length
        ? withTemplates(
            await this.repairs.rehearse(tx, repairs, { intake: intake.id, since: told.since }),
            told,
            repairs,
          )
        : null,
    };
  }

  async decide(
    tx: WorkspaceTx,
    { told, intake, routes }: DriftLine,
    { action }: Verdict,
    by: Caller['by'],
  ): Promise<string> {
    const repairs = action === 'repair' ? await this.#repairs(tx, told, intake.key, routes) : [];
    if (!repairs.length) throw new ProblemError('refused', 'This can be left, and the routes changed by hand.');
    const [read, note] =
      told.kind === 'renamed'
        ? [told.became, `“${told.field}” comes as “${told.became}” now`]
        : [told.field, `“${told.field}” comes too now`];
    const meanwhile = { intake: intake.id, since: told.since };
    const names = repairs.map(({ route }) => route.name);
    const done = [
      `${listInWords(names)} ${names.length === 1 ? 'reads' : 'read'} “${read}” now`,
      ...(await this.repairs.carryOut(tx, repairs, meanwhile, note, by)),
    ];
    return `${listInWords(done)}.`;
  }

  /** How the routes concerned can be repaired: by the new name, or by the field that a new answer fits best. */
  async #repairs(
    tx: WorkspaceTx,
    told: Drift,
    intakeKey: string,
    routes: readonly RouteDefinitions[],
  ): Promise<Repair[]> {
    if (told.kind === 'renamed')
      return routes.flatMap((route) => repairOf(route, (one) => withAnswerRenamed(one, told.field, told.became)) ?? []);
    if (told.kind !== 'appeared') return [];
    const { fields } = await this.profiles.shape(tx, intakeKey);
    const seen = fields.filter(({ key }) => key === told.field);
    const destination = await this.destinations.load(tx);
    return routes.flatMap((route) => repairOf(route, (one) => withSuggestion(one, seen, destination)) ?? []);
  }
}

/** A rehearsal that also tells what the repair leaves to a person: templates that name the old field. */
function withTemplates(rehearsal: RepairRehearsal, told: Drift, repairs: readonly Repair[]): RepairRehearsal {
  if (told.kind !== 'renamed') return rehearsal;
  const routes = rehearsal.routes.map((one) => {
    const repair = repairs.find(({ route }) => route.id === one.id)!;
    const left = templatesNaming((repair.published ?? repair.draft)!, told.field);
    const sentences = left.map(
      ({ record, field }) => `The template of the ${record}’s ${field} still names “${told.field}”: change it by hand.`,
    );
    return { ...one, changes: [...one.changes, ...sentences] };
  });
  return { ...rehearsal, routes };
}

/** The route with the field fed that an answer fits best, if it fits one. */
function withSuggestion(route: RouteDefinition, seen: readonly SeenField[], destination: Destination): RouteDefinition {
  const [best] = suggestFills(route, seen, destination).sort((a, b) => b.certainty - a.certainty);
  if (!best) return route;
  return {
    ...route,
    writes: route.writes.map((write) =>
      write.as === best.as
        ? { ...write, fills: [...write.fills.filter(({ field }) => field !== best.fill.field), best.fill] }
        : write,
    ),
  };
}

function concerns(route: RouteDefinitions, intake: string, told: Drift): boolean {
  const versions = [route.draft, ...(route.published ? [route.published] : [])].filter(({ from }) =>
    from.includes(intake),
  );
  switch (told.kind) {
    case 'renamed':
      return versions.length > 0 && repairOf(route, (one) => withAnswerRenamed(one, told.field, told.became)) !== null;
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
