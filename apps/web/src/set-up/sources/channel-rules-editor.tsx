import {
  aroundRules,
  NOTATIONS,
  partsAsked,
  rulesOfTable,
  tableOfParts,
  USUAL_CHANNELS,
  WAY_PART_LABELS,
  WAY_PARTS,
  type ChannelRule,
  type ChannelRules,
  type DecisionTable,
  type Destination,
  type WayPart,
} from '@haycart/core';
import { useCallback, useMemo, useState } from 'react';
import { CheckPanel } from '../../components/decision-table/check-panel';
import type { CellAt } from '../../components/decision-table/selection';
import { TableGrid } from '../../components/decision-table/table-grid';
import { useCheck } from '../../components/decision-table/use-check';
import { Sheet } from '../../components/sheet';

/** The columns shown at first. Others are shown when a rule uses them or somebody adds them. */
const USUAL_PARTS: readonly WayPart[] = ['utm_source', 'utm_medium', 'utm_campaign', 'site'];

/** The rules as a table, with its check beside it. The first that fits decides. */
export function ChannelRulesEditor({
  rules,
  destination,
  history,
  change,
}: {
  rules: readonly ChannelRule[];
  destination: Destination;
  history: { undo: () => void; redo: () => void };
  change: (edit: (rules: ChannelRules) => ChannelRules) => void;
}) {
  const [wanted, setWanted] = useState<readonly WayPart[]>([]);
  const asked = partsAsked(rules).join(' ');
  const parts = useMemo(
    () => WAY_PARTS.filter((part) => [...USUAL_PARTS, ...wanted, ...asked.split(' ')].includes(part)),
    [wanted, asked],
  );
  const table = useMemo(() => tableOfParts(rules, parts), [rules, parts]);
  const around = aroundRules(destination);
  const { check, checking } = useCheck(table, around);
  const [shown, setShown] = useState<CellAt | null>(null);
  const edit = useCallback(
    (to: (table: DecisionTable) => DecisionTable) =>
      change((now) => ({ ...now, rules: rulesOfTable(to(tableOfParts(now.rules, parts))) })),
    [change, parts],
  );
  const more = WAY_PARTS.filter((part) => !parts.includes(part));
  return (
    <Sheet>
      <div className="flex max-lg:block">
        <div className="flex h-[520px] min-w-0 flex-1 flex-col p-4">
          <div className="mb-3 flex flex-wrap items-baseline gap-x-3 gap-y-1">
            <h2 className="text-lg leading-6">Channel rules</h2>
            <p className="text-muted">
              The first row that fits decides. A blank source or medium stays as it was seen.
            </p>
            {more.length > 0 && (
              <select
                aria-label="Show another part"
                className="ml-auto h-8 rounded border border-faint bg-raised px-2"
                value=""
                onChange={({ target }) => setWanted([...wanted, target.value as WayPart])}
              >
                <option value="">Another part …</option>
                {more.map((part) => (
                  <option key={part} value={part}>
                    {WAY_PART_LABELS[part]}
                  </option>
                ))}
              </select>
            )}
          </div>
          <TableGrid
            table={table}
            around={around}
            check={check}
            suggested={(column) => suggestedFor(column, parts, rules, destination)}
            goTo={shown}
            edit={edit}
            undo={history.undo}
            redo={history.redo}
          />
        </div>
        <CheckPanel
          table={table}
          around={around}
          check={check}
          checking={checking}
          overlapsAreMeant
          edit={edit}
          goTo={(cell) => setShown({ ...cell })}
        />
      </div>
    </Sheet>
  );
}

/** What could be typed into the cells of a column. */
function suggestedFor(
  column: number,
  parts: readonly WayPart[],
  rules: readonly ChannelRule[],
  { valueSets = {} }: Destination,
): string[] {
  if (column === parts.length)
    return [...new Set([...USUAL_CHANNELS, ...rules.map(({ channel }) => channel)])].filter(Boolean);
  if (column > parts.length) return [];
  const tests = NOTATIONS.text.examples.filter((one) => !/^[A-Z]/.test(one));
  return [...Object.values(valueSets).map(({ name }) => `in ${name}`), ...tests];
}
