import type { RecordShape } from '@haycart/api';
import { stageOf } from '@haycart/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { call } from '../api/client';
import { offerUndo } from '../api/edits';
import { pipelinesQuery } from '../api/queries';
import { PLURALS } from '../api/record-kinds';
import { ClosingReason } from '../components/closing-reason';
import { messageOf } from '../components/status';

/** Where a deal or an open lead stands, and the way to another stage; closing a deal asks why. */
export function PlaceOf({ record }: { record: RecordShape }) {
  const client = useQueryClient();
  const pipeline = (useQuery(pipelinesQuery).data ?? []).find(({ key }) => key === record.values.pipeline);
  const [closing, setClosing] = useState<string | null>(null);
  const move = useMutation({
    mutationFn: (wish: { stage: string; reason?: string }) =>
      call<RecordShape & { edit: string | null }>('POST', `/${PLURALS[record.kind]}/${record.id}/move`, wish),
    onSuccess: async ({ edit }, { stage }) => {
      await client.invalidateQueries({ queryKey: ['records'] });
      offerUndo(client, { edit, records: 1, text: `Moved to ${stageOf(pipeline, stage)?.name}` });
    },
    onError: (error) => toast.error(messageOf(error)),
  });
  if (!pipeline || (record.kind === 'lead' && record.values.status !== 'open')) return null;
  const stages = record.kind === 'lead' ? pipeline.stages.filter(({ state }) => state === 'open') : pipeline.stages;
  const target = stageOf(pipeline, closing ?? '');
  return (
    <>
      <label className="flex h-8 items-center gap-2 rounded border-[1.5px] border-line bg-sheet pl-2">
        <span className="text-muted">{pipeline.name}</span>
        <select
          aria-label="Stage"
          value={String(record.values.stage)}
          disabled={move.isPending}
          onChange={({ target: { value } }) =>
            stageOf(pipeline, value)?.state === 'open' ? move.mutate({ stage: value }) : setClosing(value)
          }
          className="h-full cursor-pointer bg-transparent pr-1 font-semibold"
        >
          {stages.map(({ key, name }) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </select>
      </label>
      {target && (
        <ClosingReason
          title={`${record.name}: ${target.name}`}
          won={target.state === 'won'}
          action={target.name}
          close={() => setClosing(null)}
          decide={(reason) => {
            setClosing(null);
            move.mutate({ stage: target.key, ...(reason ? { reason } : {}) });
          }}
        />
      )}
    </>
  );
}
