import type { DoneEdit } from '@haycart/api';
import { useMutation, useQueryClient, type QueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import { sayDone } from '../components/say-done';
import { messageOf } from '../components/status';
import { call } from './client';

/** A change to records by the one who is signed in: it says what was done, and offers to take it back. */
export function useRecordEdit<Wish>(work: (wish: Wish) => Promise<DoneEdit>, options: { quiet?: boolean } = {}) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: work,
    onError: (error) => {
      if (!options.quiet) toast.error(messageOf(error));
    },
    onSuccess: (done) => {
      void client.invalidateQueries({ queryKey: ['records'] });
      offerUndo(client, done);
    },
  });
}

/** Says what was done, with the way back. */
export function offerUndo(client: QueryClient, { edit, text }: DoneEdit): void {
  if (edit === null) return;
  sayDone(`${text}.`, { label: 'Undo', act: () => void takeBack(client, edit) });
}

/** Takes an act back, and says what could not be since somebody changed it meanwhile. */
export async function takeBack(client: QueryClient, edit: string): Promise<void> {
  try {
    const { left } = await call<DoneEdit & { left: number }>('POST', `/edits/${edit}/take-back`);
    if (left) toast(`Taken back, but for ${left === 1 ? 'one value' : `${left} values`} that changed since.`);
  } catch (error) {
    toast.error(messageOf(error));
  }
  await client.invalidateQueries({ queryKey: ['records'] });
}
