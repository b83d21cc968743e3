import type { DecisionTable } from '@haycart/core';
import { useState } from 'react';
import { useDraft } from '../draft';
import { useComparison } from '../use-comparison';

/** How many of the latest submissions are looked at. */
const LAST = 1_000;

/** What the latest submissions show of a table, counted when somebody asks for it. */
export function usePastFigures(routeId: string, table: DecisionTable) {
  const save = useDraft(({ save }) => save);
  const { found, begin, cancel } = useComparison(routeId);
  const [counted, setCounted] = useState<DecisionTable | null>(null);
  const isStale = counted !== table;
  const figures = found?.state === 'done' ? found.tables.find((one) => one.table === table.name) : undefined;
  return {
    found,
    isStale,
    cancel,
    begin: () => {
      setCounted(table);
      void save().then(() => begin({ last: LAST }));
    },
    /** A figure for each row and the last for those without one; only while they are of these rows. */
    counts: figures && figures.rows.length === table.rows.length ? [...figures.rows, figures.none] : null,
  };
}
