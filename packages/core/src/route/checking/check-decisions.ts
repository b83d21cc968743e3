import { comparedCell, type CellSetting } from '../../decision/cell';
import { columnsOf, type TableAround } from '../../decision/column';
import { cellSetting } from '../../decision/decide';
import type { DecisionTable } from '../../decision/decision-table';
import { wrongOutput } from '../../decision/output-problem';
import type { Destination } from '../../destination/destination';
import { jsonPointer } from '../../json';
import { isTimeZone } from '../../people/person';
import { error, type Problem } from '../../problem';
import type { RouteDefinition } from '../../definition/route-definition';
import type { Part } from '../../value/value';
import { checkOutputPart } from './check-output';
import { checkPart } from './check-value';
import type { RouteSurroundings } from './surroundings';

type Way = (string | number)[];

/** What is wrong with the decision tables of a route; that rows are never reached or cases missed stands in no way. */
export function checkTables(route: RouteDefinition, surroundings: RouteSurroundings): Problem[] {
  return (route.decisions ?? []).flatMap((table, t, tables) => {
    const way: Way = ['decisions', t];
    const around = { destination: surroundings.destination, writes: route.writes, tables: tables.slice(0, t) };
    const taken = tables.slice(0, t).some(({ name }) => name === table.name);
    return [
      ...(taken ? [error('name-taken', `Two tables are called “${table.name}”.`, jsonPointer([...way, 'name']))] : []),
      ...checkInputs(table, way, route, around, surroundings),
      ...checkOutputs(table, way),
      ...checkRows(table, way, around),
    ];
  });
}

function checkInputs(
  { inputs }: DecisionTable,
  way: Way,
  route: RouteDefinition,
  around: TableAround,
  surroundings: RouteSurroundings,
): Problem[] {
  return inputs.flatMap(({ of, postcode, timeZone }, i) => {
    const at = [...way, 'inputs', i];
    const parts = [of, ...(postcode ? [postcode] : [])].flatMap((part) =>
      checkInputPart(part, [...at, 'of'], route, around, surroundings),
    );
    if (timeZone === undefined || isTimeZone(timeZone)) return parts;
    return [
      ...parts,
      error('unknown-time-zone', `There is no time zone “${timeZone}”.`, jsonPointer([...at, 'timeZone'])),
    ];
  });
}

/** An input may be an output of an earlier table, or of any write: where the table is used says which are too late. */
function checkInputPart(
  part: Part,
  way: Way,
  route: RouteDefinition,
  { tables }: TableAround,
  surroundings: RouteSurroundings,
): Problem[] {
  if ('decision' in part)
    return tables.some(({ name }) => name === part.decision)
      ? checkOutputPart(part, way, { decisions: [...tables] })
      : [
          error(
            'unknown-decision',
            `No earlier table is called “${part.decision}”.`,
            jsonPointer([...way, 'decision']),
          ),
        ];
  return checkPart(part, way, route, route.writes.length, surroundings);
}

function checkOutputs({ outputs }: DecisionTable, way: Way): Problem[] {
  return outputs.flatMap(({ name }, o) =>
    outputs.slice(0, o).some((one) => one.name === name)
      ? [error('name-taken', `Two outputs are called “${name}”.`, jsonPointer([...way, 'outputs', o, 'name']))]
      : [],
  );
}

function checkRows(table: DecisionTable, way: Way, around: TableAround): Problem[] {
  const columns = columnsOf(table, around);
  const setting: CellSetting = cellSetting(around.destination, '2026-01-01T00:00:00.000Z');
  const problems = table.rows.flatMap(({ when, then }, r) => {
    const at = [...way, 'rows', r];
    if (when.length > columns.length)
      return [error('cell-does-not-fit', `Row ${r + 1} has more cells than the table has columns.`, jsonPointer(at))];
    const cells = columns.flatMap((column, c) => {
      const cell = when[c];
      const compared = cell ? comparedCell(cell, column, setting) : null;
      return typeof compared === 'string'
        ? [
            error(
              'cell-does-not-fit',
              `Row ${r + 1}, ${column.input.label}: ${compared}`,
              jsonPointer([...at, 'when', c]),
            ),
          ]
        : [];
    });
    return [...cells, ...checkThen(then, `Row ${r + 1}`, [...at, 'then'], table, around.destination)];
  });
  const { otherwise } = table;
  if (otherwise) problems.push(...checkThen(otherwise, 'Otherwise', [...way, 'otherwise'], table, around.destination));
  return problems;
}

function checkThen(
  then: Record<string, unknown>,
  where: string,
  way: Way,
  { outputs }: DecisionTable,
  destination: Destination,
): Problem[] {
  return Object.entries(then).flatMap(([name, value]) => {
    const at = jsonPointer([...way, name]);
    const output = outputs.find((one) => one.name === name);
    if (!output) return [error('unknown-output', `The table has no output “${name}”.`, at)];
    const wrong = value === undefined || value === null ? null : wrongOutput(value, output.type, destination);
    return wrong === null ? [] : [error('output-does-not-fit', `${where}, ${name}: ${wrong}`, at)];
  });
}
