import type { FieldShape } from '@haycart/api';
import type { FieldOption } from '@haycart/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import { call } from '../api/client';
import { sayDone } from './say-done';
import { messageOf } from './status';

/** What may be changed about a field. A new option has no key yet. */
export interface FieldEdit {
  label?: string;
  required?: boolean;
  help?: string;
  group?: string;
  unique?: boolean;
  options?: (Omit<FieldOption, 'key'> & { key?: string })[];
  retired?: boolean;
}

/** Changes to a field; taking it out of use can be taken back from the word that says so. */
export function useFieldChange({ record, key, label }: Pick<FieldShape, 'record' | 'key' | 'label'>) {
  const client = useQueryClient();
  const change = useMutation({
    scope: { id: `field changes ${record} ${key}` },
    mutationFn: (edit: FieldEdit) => call<FieldShape>('PATCH', `/fields/${record}/${key}`, edit),
    onError: (error) => toast.error(messageOf(error)),
    onSuccess: async (_saved, { retired }) => {
      await client.invalidateQueries({ queryKey: ['fields'] });
      if (retired)
        sayDone(`${label} is out of use. Its values stay on the records.`, {
          label: 'Bring back',
          act: () => change.mutate({ retired: false }),
        });
    },
  });
  return change;
}
