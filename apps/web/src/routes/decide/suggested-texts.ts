import { columnsOf, NOTATIONS, outputChoices, type DecisionTable, type TableAround } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { profileQuery } from '../../api/queries';
import { useOpenedRoute } from '../route-pages';

/** As many as a list of them is good for. */
const MOST = 40;

/** What could be typed into the cells of a column: its choices, what came so far, value sets, and how tests are written. */
export function useSuggestedTexts(table: DecisionTable, around: TableAround): (column: number) => string[] {
  const { destination } = around;
  const columns = useMemo(() => columnsOf(table, around), [table, around]);
  const { definition } = useOpenedRoute();
  const intake = definition.from[0] ?? '';
  const fields = useQuery({ ...profileQuery(intake), enabled: intake !== '' }).data?.fields ?? [];
  return (at) => {
    const column = columns[at];
    if (!column) {
      const output = table.outputs[at - columns.length];
      if (!output) return [];
      if (output.type === 'yes-no') return ['yes', 'no'];
      const known = outputChoices(output.type, destination).flatMap(({ label, retired }) => (retired ? [] : label));
      if (output.type !== 'owner') return known;
      const teams = Object.values(destination.teams ?? {}).map(({ name }) => name);
      return [
        ...known,
        ...teams.map((name) => `${name}, contact’s owner first`),
        ...teams.map((name) => `${name}, at work first`),
      ];
    }
    const { input, family, options } = column;
    const key = 'answer' in input.of ? input.of.answer : '';
    const seen = fields.find((field) => field.key === key || field.also.includes(key));
    const sets = family === 'text' || family === 'region' ? Object.values(destination.valueSets ?? {}) : [];
    const known = options.length ? options.map(({ label }) => label) : (seen?.values ?? []).map(({ value }) => value);
    const tests =
      family === 'options' || options.length ? [] : NOTATIONS[family].examples.filter((one) => !/^[A-Z]/.test(one));
    return [...new Set([...known, ...sets.map(({ name }) => `in ${name}`), ...tests])].slice(0, MOST);
  };
}
