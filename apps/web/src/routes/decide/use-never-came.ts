import { neverCame, type DecisionTable, type NeverCame, type TableAround } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { profileQuery } from '../../api/queries';
import { useOpenedRoute } from '../route-pages';

/** The cells of a table that nothing met which came to its intake so far; none where the route takes from several. */
export function useNeverCame(table: DecisionTable, around: TableAround): readonly NeverCame[] {
  const { definition } = useOpenedRoute();
  const [intake = '', ...others] = definition.from;
  const isOne = intake !== '' && others.length === 0;
  const fields = useQuery({ ...profileQuery(intake), enabled: isOne }).data?.fields;
  return useMemo(() => {
    if (!isOne || !fields) return [];
    return neverCame(table, around, (answer) => {
      const field = fields.find(({ key, also }) => key === answer || also.includes(answer));
      const isWhole = field !== undefined && !field.more && field.values.length === field.distinct;
      return isWhole ? field.values.map(({ value }) => value) : null;
    });
  }, [table, around, fields, isOne]);
}
