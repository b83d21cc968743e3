import { Inject, Injectable } from '@nestjs/common';
import {
  intakeKind,
  listInWords,
  suggestFills,
  templatesNaming,
  usesAnswer,
  withAnswerRenamed,
  type Destination,
  type Drift,
  type RouteDefinition,
  type SeenField,
} from '@haycart/core';
import type { RepairRehearsal } from '@haycart/api';
import type { Caller } from '../../../platform/auth/caller';
import type { WorkspaceTx } from '../../../platform/database/database';
import { ProblemError } from '../../../platform/errors/problem-error';
import { RoutesService, type RouteDefinitions } from '../../../routes/routes.service';
import { ProfilesService, type DriftingIntake } from '../../../submissions/profiles.service';
import { DestinationService } from '../../../destination/destination.service';
import {
  decisionId,
  LEAVE,
  MOST_COUNTED,
  type AskedLines,
  lineOf,
  type DecisionDetails,
  type DecisionKind,
  type KindOfLine,
  type Verdict,
  type WaitingLine,
} from '../decision-kind';
import { driftWords, lastName, repairWords } from './drift-words';
import { repairOf, RepairsService, type Repair } from './repairs.service';
import { decidedAmong } from '../left-alone';

interface DriftLine extends WaitingLine {
  told: Drift;
  intake: { id: string; key: string; name: string };
  routes: RouteDefinitions[];
}

const about: KindOfLine['about'] = ({ subject, detail }) => `${detail}, ${subject}`;
const KINDS: Record<Drift['kind'], KindOfLine> = {
  renamed: { kind: 'renamed', title: 'A field was renamed', rank: 20, isFailure: true, about },
  stopped: { kind: 'stopped', title: 'A field stopped coming', rank: 90, about },
  changed: { kind: 'changed', title: 'A field changed', rank: 100, about },
  appeared: { kind: 'appeared', title: 'A new field', rank: 110, about },
};

/** Fields of an intake that changed under routes that read them, and new ones that none reads. */
@Injectable()
export class DriftDecisions implements DecisionKind<DriftLine> {
  constructor(
    @Inject(ProfilesService) private readonly profiles: ProfilesService,
    @Inject(RoutesService) private readonly routes: RoutesService,
    @Inject(RepairsService) private readonly repairs: RepairsService,
    @Inject(DestinationService) private readonly destinations: DestinationService,
  ) {}

  async lines(tx: WorkspaceTx, { most, id: only }: AskedLines): Promise<DriftLine[]> {
    const intakes = await this.profiles.drift(tx);
    if (!intakes.length) return [];
    const routes = await this.routes.definitions(tx);
    const told = intakes.flatMap((intake) => intake.drift.flatMap((drift) => driftLine(intake, drift, routes)));
    const asked = only === undefined ? told : told.filter(({ id }) => id === only);
    const decided = await decidedAmong(
      tx,
      asked.map(({ id }) => id),
    );
    return asked.filter(({ id }) => !decided.has(id)).slice(0, most);
  }

  async count(tx: WorkspaceTx): Promise<number> {
    return (await this.lines(tx, { most: MOST_COUNTED })).length;
  }

  async details(tx: WorkspaceTx, line: DriftLine): Promise<DecisionDetails> {
    const { told, intake, routes } = line;
    const { fields } = await this.profiles.shape(tx, intake.key);
    const keys = [told.field, ...('became' in told ? [told.became] : [])];
    const repairs = await this.#repairs(tx, told, intake.key, routes);
    const rehearsed = { intake: intake.id, since: told.since };
    const repair = repairs.length
      ? withTemplates(await this.repairs.rehearse(tx, repairs, rehearsed), told, repairs)
      : null;
    const label = told.kind === 'appeared' ? 'Read it' : 'Repair';
    return {
      ...driftWords(line),
      consequence: repair
        ? repairWords(label, told, repair)
        : 'Left: not asked again. To change a route, open it above.',
      choices: [...(repair ? [{ action: 'repair', label, key: 'r' }] : []), LEAVE],
      things: [
        { kind: 'intake', id: intake.key, name: intake.name },
        ...routes.map(({ id, name }) => ({ kind: 'route' as const, id, name })),
      ],
      examples: [],
      view: {
        as: 'drift',
        told,
        fields: keys.flatMap((key) => {
          const field = fields.find((one) => one.key === key);
          return field ? [{ key, label: field.label, filled: field.filled, examples: field.examples }] : [];
        }),
        repair,
      },
    };
  }

  async decide(
    tx: WorkspaceTx,
    { told, intake, routes }: DriftLine,
    { action }: Verdict,
    by: Caller['by'],
  ): Promise<string> {
    if (action !== 'repair') throw new ProblemError('refused', 'This can be repaired where that is offered, or left.');
    const repairs = await this.#repairs(tx, told, intake.key, routes);
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
      return `${lastName(told.field)} → ${lastName(told.became)}`;
    case 'changed':
      return `${lastName(told.field)}: ${told.from} → ${told.to}`;
    default:
      return lastName(told.field);
  }
}

/** What changed, where a route is concerned. */
function driftLine(
  { id, key, name, kind }: DriftingIntake,
  told: Drift,
  routes: readonly RouteDefinitions[],
): DriftLine[] {
  const concerned = routes.filter((route) => concerns(route, key, told));
  if (!concerned.length || (told.kind === 'appeared' && !intakeKind(kind).tellsNewFields)) return [];
  const facts = {
    id: idOf(id, told),
    subject: name,
    detail: detailOf(told),
    count: 'missed' in told ? told.missed : 'filled' in told ? told.filled : 1,
    at: told.since,
    like: `${told.kind} ${key}`,
  };
  return [{ ...lineOf(KINDS[told.kind], facts), told, intake: { id, key, name }, routes: concerned }];
}
