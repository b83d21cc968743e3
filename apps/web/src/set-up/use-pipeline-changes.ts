import type { PipelineShape, SetUpChange } from '@haycart/api';
import { editPipeline, type PipelineEdit } from '@haycart/core';
import { useMutation, useMutationState, useQueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import { call } from '../api/client';
import { pipelinesQuery } from '../api/queries';
import { sayDone } from '../components/say-done';
import { messageOf } from '../components/status';

const changesOf = (id: string) => ['pipeline changes', id];

/** Changes to one pipeline; `useShownPipeline` shows them while they are saved. */
export function usePipelineChange({ id }: PipelineShape) {
  const client = useQueryClient();
  const { queryKey } = pipelinesQuery;
  return useMutation({
    mutationKey: changesOf(id),
    // One after the other, in the order in which they were made: two quick moves must not overtake each other.
    scope: { id: changesOf(id).join(' ') },
    mutationFn: (edit: PipelineEdit) => send(id, edit),
    onError: (error) => toast.error(messageOf(error)),
    onSuccess: async (saved) => {
      // What was asked for before the change would show what was before it.
      await client.cancelQueries({ queryKey });
      client.setQueryData(queryKey, (all) => all?.map((one) => (one.id === saved.id ? saved : one)));
    },
  });
}

/** A pipeline as it is with the changes that are still on their way; one that is refused goes as it came. */
export function useShownPipeline(pipeline: PipelineShape): PipelineShape {
  const onTheWay = useMutationState({
    filters: { mutationKey: changesOf(pipeline.id), status: 'pending' },
    select: ({ state }) => state.variables as PipelineEdit,
  });
  return onTheWay.reduce(
    (shown, edit) => (edit.do === 'add-stage' ? shown : { ...shown, ...editPipeline(shown, edit) }),
    pipeline,
  );
}

/** Removing a stage, or a whole pipeline; it can be taken back from the word that says so. */
export function useRemoval() {
  const client = useQueryClient();
  const fresh = () =>
    Promise.all([
      client.invalidateQueries({ queryKey: ['pipelines'] }),
      client.invalidateQueries({ queryKey: ['records'] }),
      client.invalidateQueries({ queryKey: ['routes'] }),
    ]);
  const takeBack = useMutation({
    mutationFn: (change: string) => call<SetUpChange>('POST', `/set-up/changes/${change}/take-back`),
    onSuccess: async () => {
      await fresh();
      toast('It is back, with what nobody changed since.');
    },
    onError: (error) => toast.error(messageOf(error)),
  });
  const remove = useMutation({
    mutationFn: ({ pipeline, stage, moveTo }: { pipeline: string; stage: string | null; moveTo: string | null }) =>
      call<SetUpChange>(
        'DELETE',
        `/pipelines/${pipeline}${stage === null ? '' : `/stages/${stage}`}${moveTo === null ? '' : `?moveTo=${encodeURIComponent(moveTo)}`}`,
      ),
    onSuccess: async ({ id, text }) => {
      await fresh();
      sayDone(text, { label: 'Take back', act: () => takeBack.mutate(id) });
    },
  });
  return { remove, takeBack };
}

function send(id: string, edit: PipelineEdit): Promise<PipelineShape> {
  const stages = `/pipelines/${id}/stages`;
  switch (edit.do) {
    case 'rename':
      return call('PATCH', `/pipelines/${id}`, { name: edit.name });
    case 'default-stage':
      return call('PATCH', `/pipelines/${id}`, { defaultStage: edit.stage });
    case 'promise':
      return call('PATCH', `/pipelines/${id}`, { promise: edit.promise });
    case 'add-stage':
      return call('POST', stages, { name: edit.stage.name, state: edit.stage.state });
    case 'change-stage':
      return call('PATCH', `${stages}/${edit.stage}`, nulls(edit.change));
    case 'move-stage':
      return call('PATCH', `${stages}/${edit.stage}`, { position: edit.to });
    case 'remove-stage':
      return call('DELETE', `${stages}/${edit.stage}`);
  }
}

/** What is taken away is sent as `null`; what is absent stays as it is. */
function nulls(change: object): object {
  return Object.fromEntries(Object.entries(change).map(([key, value]) => [key, (value as unknown) ?? null]));
}
