import { setImmediate } from 'node:timers/promises';
import {
  comparePlans,
  planRun,
  whoSent,
  type Destination,
  type KnownRecords,
  type Plan,
  type RouteDefinition,
  type Submission,
} from '@haycart/core';
import type { DifferenceGroup, PlannedOutcomes, RowFigure, TableFigures } from '@haycart/api';

/** The two definitions that are compared; without the first, one is rehearsed alone. */
export interface Versions {
  before: RouteDefinition | null;
  after: RouteDefinition;
}

/** What both are planned upon: the submissions that can be read, and all that is known for them. */
export interface Ground {
  submissions: Submission[];
  known: KnownRecords;
  destination: Destination;
}

/** What a comparison has found so far. */
export interface Findings {
  before: PlannedOutcomes;
  after: PlannedOutcomes;
  differ: number;
  groups: Map<string, DifferenceGroup>;
  tables: TableFigures[];
}

/** How many examples are kept of a difference and of a row, and how many kinds of differences. */
const EXAMPLES = 20;
const ROW_EXAMPLES = 100;
const MOST_GROUPS = 500;
const NOBODY: PlannedOutcomes = { write: 0, hold: 0, skip: 0, fail: 0 };

/** @param after The definition whose tables are counted. */
export function noFindings({ decisions = [] }: Pick<RouteDefinition, 'decisions'>): Findings {
  const none = (): RowFigure => ({ count: 0, examples: [] });
  const tables = decisions.map(({ name, rows }) => ({ table: name, rows: rows.map(none), none: none() }));
  return { before: { ...NOBODY }, after: { ...NOBODY }, differ: 0, groups: new Map(), tables };
}

/** The kinds of differences, most often first. */
export function groupsOf({ groups }: Findings): DifferenceGroup[] {
  return [...groups.values()].sort((a, b) => b.count - a.count);
}

/** So many are planned before others get their turn on this thread. */
const TURN = 25;

/** Plans each submission with both definitions, and adds to the findings how they differ. */
export async function compare(
  { before, after }: Versions,
  { submissions, known, destination }: Ground,
  findings: Findings,
): Promise<void> {
  for (const [index, submission] of submissions.entries()) {
    if (index % TURN === TURN - 1) await setImmediate();
    const planned = planOf(after, submission, known, destination);
    findings.after[planned.outcome] += 1;
    countRows(findings, submission, planned);
    if (!before) continue;
    const earlier = planOf(before, submission, known, destination);
    findings.before[earlier.outcome] += 1;
    note(findings, submission, earlier, planned, destination);
  }
}

/** Counts which row of each table took a submission. */
function countRows({ tables }: Findings, { id, payload, receivedAt: at }: Submission, { decided = [] }: Plan): void {
  for (const { table, row } of decided) {
    const figures = tables.find((one) => one.table === table);
    const figure = row === null ? figures?.none : figures?.rows[row];
    if (!figure) continue;
    figure.count += 1;
    if (figure.examples.length < ROW_EXAMPLES) figure.examples.push({ submission: id, who: nameOf(payload), at });
  }
}

function planOf(route: RouteDefinition, submission: Submission, known: KnownRecords, destination: Destination): Plan {
  // A route that does not take from this intake leaves it out.
  if (!route.from.includes(submission.intake))
    return planRun({ ...route, onlyWhen: { any: [] } }, submission, known, { destination, newIds: {} });
  const newIds = Object.fromEntries(route.writes.map(({ as }) => [as, `new:${as}`]));
  return planRun(route, submission, known, { destination, newIds, allTables: true });
}

function note(findings: Findings, submission: Submission, before: Plan, after: Plan, destination: Destination): void {
  const differences = comparePlans(before, after, destination);
  if (differences.length) findings.differ += 1;
  for (const { kind, text, before: one, after: other } of differences) {
    let group = findings.groups.get(kind);
    if (!group) {
      if (findings.groups.size >= MOST_GROUPS) continue;
      findings.groups.set(kind, (group = { kind, text, count: 0, examples: [] }));
    }
    group.count += 1;
    if (group.examples.length < EXAMPLES) {
      group.examples.push({ submission: submission.id, who: nameOf(submission.payload), before: one, after: other });
    }
  }
}

function nameOf(payload: Submission['payload']): string {
  const { who, email } = whoSent(payload);
  return who || email;
}
