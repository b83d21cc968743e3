import { withTable, type DecisionTable } from '@haycart/core';
import { useCallback } from 'react';
import { useDraft } from '../draft';

/** Changes one table of the draft; each change is one that can be undone. */
export function useTableEdit(name: string): (change: (table: DecisionTable) => DecisionTable) => void {
  const change = useDraft(({ change }) => change);
  return useCallback((edit) => change((route) => withTable(route, name, edit)), [change, name]);
}
