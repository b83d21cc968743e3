import { AGE_BANDS, type DealCard, type PipelineGrid, type PipelineShape } from '@haycart/api';
import { stageOf } from '@haycart/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import { call } from '../api/client';
import { offerUndo } from '../api/edits';
import { gridQuery, type GridWish } from '../api/queries';
import { PLURALS } from '../api/record-kinds';
import { messageOf } from '../components/status';

/** A card on its way from one stage to another. */
export interface Move {
  card: DealCard;
  from: string;
  to: string;
  reason?: string;
}

/** Moves a card at once on the screen, and back with a word when the server would not. */
export function useMove(pipeline: PipelineShape, wish: GridWish) {
  const client = useQueryClient();
  const { queryKey } = gridQuery(pipeline.key, wish);
  return useMutation({
    mutationFn: ({ card, to, reason }: Move) =>
      call<{ edit: string | null }>('POST', `/${PLURALS[pipeline.record]}/${card.id}/move`, {
        stage: to,
        ...(reason ? { reason } : {}),
      }),
    onMutate: async (move) => {
      await client.cancelQueries({ queryKey });
      const before = client.getQueryData(queryKey);
      if (before) client.setQueryData(queryKey, moved(before, move));
      return before;
    },
    onError: (error, _move, before) => {
      if (before) client.setQueryData(queryKey, before);
      toast.error(messageOf(error));
    },
    onSuccess: ({ edit }, { card, to }) =>
      offerUndo(client, { edit, records: 1, text: `${card.name} is in ${stageOf(pipeline, to)?.name ?? to} now` }),
    onSettled: () => client.invalidateQueries({ queryKey: ['records'] }),
  });
}

function moved(grid: PipelineGrid, { card, from, to }: Move): PipelineGrid {
  const now = { ...card, stageSince: new Date().toISOString() };
  return {
    ...grid,
    rows: grid.rows.map((row) => {
      if (row.stage === from) {
        const cells = Object.fromEntries(
          AGE_BANDS.map((band) => {
            const { count: deals, deals: cards } = row.cells[band];
            const left = cards.filter(({ id }) => id !== card.id);
            return [band, { count: deals - (cards.length - left.length), deals: left }];
          }),
        ) as PipelineGrid['rows'][number]['cells'];
        return { ...row, count: row.count - 1, cells };
      }
      if (row.stage !== to) return row;
      const { day } = row.cells;
      return {
        ...row,
        count: row.count + 1,
        cells: { ...row.cells, day: { count: day.count + 1, deals: [now, ...day.deals] } },
      };
    }),
  };
}
