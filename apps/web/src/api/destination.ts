import type { Destination } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { fieldsQuery, pipelinesQuery, sessionQuery } from './queries';

/** The workspace's destination, as the core wants it; undefined until it is read. */
export function useDestination(): Destination | undefined {
  const fields = useQuery(fieldsQuery).data;
  const pipelines = useQuery(pipelinesQuery).data;
  const workspace = useQuery(sessionQuery).data?.workspace;
  return useMemo(
    () =>
      fields &&
      pipelines &&
      workspace && {
        fields,
        pipelines,
        defaultCountry: workspace.defaultCountry,
        defaultCurrency: workspace.defaultCurrency,
        leadHandling: workspace.leadHandling,
        dealWord: workspace.dealWord,
      },
    [fields, pipelines, workspace],
  );
}
