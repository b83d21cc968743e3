import type { ValueSetShape } from '@haycart/api';
import { counted, readValueSetsCsv, valueSetsCsv } from '@haycart/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Download, Plus, Trash2, Upload } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { call } from '../api/client';
import { valueSetsQuery } from '../api/queries';
import { AskOnce } from '../components/ask-once';
import { Button, IconButton } from '../components/button';
import { FileButton } from '../components/file-button';
import { saveAs } from '../components/save-as';
import { Sheet } from '../components/sheet';
import { Empty, Failed, Loading, messageOf } from '../components/status';
import { SetUpPage } from './set-up-page';
import { ValueSetDialog } from './value-set-dialog';

/** Named sets of values, which the cells of decision tables call by name. */
export function ValueSetsSetUp() {
  const sets = useQuery(valueSetsQuery);
  const [edited, setEdited] = useState<ValueSetShape | 'new' | null>(null);
  const [removed, setRemoved] = useState<ValueSetShape | null>(null);
  return (
    <SetUpPage
      about="values that belong together, for decision tables"
      action={
        <>
          <CsvButtons sets={sets.data ?? []} />
          <Button look="main" onClick={() => setEdited('new')}>
            <Plus className="size-4" aria-hidden /> New value set
          </Button>
        </>
      }
    >
      <Sheet>
        {sets.isPending ? (
          <Loading lines={4} />
        ) : sets.isError ? (
          <Failed error={sets.error} retry={() => void sets.refetch()} />
        ) : sets.data.length ? (
          <table className="w-full table-fixed text-left">
            <thead>
              <tr className="h-8 border-b border-line text-small text-muted">
                <th scope="col" className="w-48 px-3 font-semibold max-sm:w-32">
                  Name
                </th>
                <th scope="col" className="w-20 px-3 text-right font-semibold">
                  Values
                </th>
                <th scope="col" className="px-3 font-semibold">
                  Such as
                </th>
                <th scope="col" className="w-64 px-3 font-semibold max-sm:hidden">
                  Used by
                </th>
                <th scope="col" className="w-14 px-3">
                  <span className="sr-only">What can be done</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {sets.data.map((set) => (
                <tr key={set.key} className="h-10 border-b border-hair last:border-0">
                  <td className="truncate px-3">
                    <button
                      type="button"
                      onClick={() => setEdited(set)}
                      className="max-w-full truncate text-left font-semibold hover:underline"
                    >
                      {set.name}
                    </button>
                  </td>
                  <td className="px-3 text-right tabular-nums">{set.values.length.toLocaleString('en-GB')}</td>
                  <td className="truncate px-3 text-muted" title={set.values.slice(0, 30).join(', ')}>
                    {set.values.slice(0, 12).join(', ') || 'nothing: no cell with it can be met'}
                  </td>
                  <td className="truncate px-3 text-muted max-sm:hidden" title={set.usedBy.join(', ')}>
                    {set.usedBy.join(', ') || 'no route'}
                  </td>
                  <td className="px-3 text-right">
                    <IconButton
                      label={`Remove ${set.name}`}
                      className="!size-7 text-muted"
                      onClick={() => setRemoved(set)}
                    >
                      <Trash2 className="size-3.5" aria-hidden />
                    </IconButton>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        ) : (
          <Empty title="No value sets yet">
            A value set is a list under one name, such as the countries of a region or the domains of competitors. A
            cell of a decision table calls it: <i>in North</i>, <i>not in North</i>.
          </Empty>
        )}
      </Sheet>
      {edited && <ValueSetDialog set={edited === 'new' ? null : edited} close={() => setEdited(null)} />}
      {removed && <RemoveSet set={removed} close={() => setRemoved(null)} />}
    </SetUpPage>
  );
}

function CsvButtons({ sets }: { sets: readonly ValueSetShape[] }) {
  const client = useQueryClient();
  const bring = useMutation({
    mutationFn: async (chosen: File) => {
      const read = readValueSetsCsv(await chosen.text());
      if (typeof read === 'string') throw new Error(read);
      await call('POST', '/value-sets/import', { sets: read });
      return read.length;
    },
    onSuccess: async (count) => {
      await client.invalidateQueries({ queryKey: ['labels'] });
      toast(`${counted(count, 'value set')} came from the file.`);
    },
    onError: (error) => toast.error(messageOf(error)),
  });
  return (
    <>
      <FileButton
        label="Value sets from a CSV file"
        accept=".csv,text/csv"
        disabled={bring.isPending}
        choose={(chosen) => bring.mutate(chosen)}
      >
        <Upload className="size-4" aria-hidden /> From CSV
      </FileButton>
      <Button onClick={() => saveAs('value-sets.csv', 'text/csv', valueSetsCsv(sets))} disabled={!sets.length}>
        <Download className="size-4" aria-hidden /> As CSV
      </Button>
    </>
  );
}

function RemoveSet({ set: { key, name, usedBy }, close }: { set: ValueSetShape; close: () => void }) {
  const client = useQueryClient();
  const remove = useMutation({
    mutationFn: () => call('DELETE', `/value-sets/${key}`),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ['labels'] });
      close();
    },
  });
  return (
    <AskOnce
      title={`Remove ${name}?`}
      loses={
        usedBy.length
          ? `It is used by ${usedBy.join(', ')}, and stays as long as it is.`
          : 'Its values are gone then. No route uses it.'
      }
      action="Remove"
      doing={remove}
      close={close}
    />
  );
}
