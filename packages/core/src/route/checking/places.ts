import type { DecisionTable } from '../../decision/decision-table';
import type { Place, RouteDefinition } from '../../definition/route-definition';
import { fixedText } from '../../definition/fixed-text';
import type { Part, Value } from '../../value/value';
import { withTable } from '../editing/edit-decisions';

/** A pipeline and one of its stages, by their keys. */
export interface PlaceKeys {
  pipeline: string;
  stage: string;
}

type Decided = Extract<Part, { decision: string }>;

/**
 * The places that a route names outright, itself or in the rows of its tables. Those that answers choose are not known before a
 * submission.
 */
export function placesNamed(route: RouteDefinition): PlaceKeys[] {
  return route.writes.flatMap(({ place }) => (place ? sayings(place, route).flatMap(({ keys }) => keys ?? []) : []));
}

/**
 * The route with one place in the stead of another, wherever it names that outright. Where a table says the stage of a
 * pipeline that is fixed, a stage of another pipeline cannot stand there, and the old one stays.
 */
export function replacePlace(route: RouteDefinition, from: PlaceKeys, to: PlaceKeys): RouteDefinition {
  let replaced = route;
  for (const write of route.writes) {
    if (!write.place) continue;
    for (const saying of sayings(write.place, route)) {
      if (saying.keys?.pipeline !== from.pipeline || saying.keys.stage !== from.stage) continue;
      if (saying.row === null) replaced = withFixedPlace(replaced, write.as, to);
      else if (saying.pipeline || from.pipeline === to.pipeline) replaced = withSaid(replaced, saying, to);
    }
  }
  return replaced;
}

/** One way in which a place can come out: fixed, or said by a row of a table. */
interface Saying {
  keys: PlaceKeys | null;
  /** The row of the table, or `otherwise`; `null` for a place that is fixed. */
  row: number | 'otherwise' | null;
  table?: string;
  /** The outputs that say it. */
  pipeline?: string | undefined;
  stage?: string | undefined;
}

function sayings(place: Place, { decisions = [] }: RouteDefinition): Saying[] {
  const [pipeline, stage] = [fixedText(place.pipeline), fixedText(place.stage)];
  if (pipeline !== null && stage !== null) return [{ keys: { pipeline, stage }, row: null }];
  const [byTable, stageBy] = [decidedBy(place.pipeline), decidedBy(place.stage)];
  // Each is fixed or said by the one table; what answers choose is not known.
  const table = decisions.find(({ name }) => name === (byTable ?? stageBy)?.decision);
  if (!table || (byTable && stageBy && byTable.decision !== stageBy.decision)) return [];
  if ((pipeline === null && !byTable) || (stage === null && !stageBy)) return [];
  return thens(table).map(({ row, then }) => {
    const [said, standing] = [pipeline ?? then[byTable!.output], stage ?? then[stageBy!.output]];
    const known = typeof said === 'string' && typeof standing === 'string';
    return {
      keys: known ? { pipeline: said, stage: standing } : null,
      row,
      table: table.name,
      pipeline: byTable?.output,
      stage: stageBy?.output,
    };
  });
}

function thens({ rows, otherwise }: DecisionTable): { row: number | 'otherwise'; then: Record<string, unknown> }[] {
  const of = rows.map(
    ({ then }, row) => ({ row, then }) as { row: number | 'otherwise'; then: Record<string, unknown> },
  );
  return otherwise ? [...of, { row: 'otherwise', then: otherwise }] : of;
}

function decidedBy({ parts }: Value): Decided | null {
  const [only] = parts;
  return parts.length === 1 && only && 'decision' in only ? only : null;
}

function withFixedPlace(route: RouteDefinition, as: string, to: PlaceKeys): RouteDefinition {
  const fixed = (text: string) => ({ parts: [{ text }] });
  const writes = route.writes.map((write) =>
    write.as === as
      ? { ...write, place: { ...write.place!, pipeline: fixed(to.pipeline), stage: fixed(to.stage) } }
      : write,
  );
  return { ...route, writes };
}

function withSaid(route: RouteDefinition, { table, row, pipeline, stage }: Saying, to: PlaceKeys): RouteDefinition {
  const change = (then: Record<string, unknown>) => ({
    ...then,
    ...(pipeline === undefined ? {} : { [pipeline]: to.pipeline }),
    ...(stage === undefined ? {} : { [stage]: to.stage }),
  });
  return withTable(route, table!, (one) =>
    row === 'otherwise'
      ? { ...one, otherwise: change(one.otherwise!) }
      : { ...one, rows: one.rows.map((own, index) => (index === row ? { ...own, then: change(own.then) } : own)) },
  );
}
