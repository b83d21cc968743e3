import type { TakeBackRehearsal, TakenBack } from '@haycart/api';
import { counted } from '@haycart/core';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '../api/client';
import { takeBack } from '../api/edits';
import { Button } from './button';
import { Dialog } from './dialog';
import { sayDone } from './say-done';
import { Failed, Loading, messageOf } from './status';
import { periodOf, type Days } from './days';
import { TextField } from './text-field';
import { changesNothing, WhatGoesBack } from './what-goes-back';

/** Which written runs are taken back: named, or all of a route, of one version, of a time. */
export interface RunChoice {
  runs?: string[];
  route?: string;
  version?: number;
  since?: string;
  before?: string;
}

/** Taking back what runs wrote: what would go, what would stay and why, and then the act, which can be undone. */
export function TakeBackDialog({
  title,
  choice: given,
  close,
}: {
  title: string;
  choice: RunChoice;
  close: () => void;
}) {
  const [days, setDays] = useState<Days>({ from: '', to: '' });
  const choice = given.runs ? given : { ...given, ...periodOf(days) };
  const client = useQueryClient();
  const rehearsal = useQuery({
    queryKey: ['records', 'take-back', choice],
    queryFn: () => call<TakeBackRehearsal>('POST', '/runs/take-back/rehearse', choice),
    placeholderData: keepPreviousData,
    retry: false,
  });
  const act = useMutation({
    mutationFn: () => call<TakenBack>('POST', '/runs/take-back', choice),
    onSuccess: ({ edit, runs, left }) => {
      for (const queryKey of [['records'], ['submissions'], ['runs'], ['any']])
        void client.invalidateQueries({ queryKey });
      sayDone(
        `Took back ${counted(runs, 'run')}${left ? `; ${left} stay as they are` : ''}.`,
        edit ? { label: 'Undo', act: () => void takeBack(client, edit) } : undefined,
      );
      close();
    },
  });
  const nothing = rehearsal.data && changesNothing(rehearsal.data);
  return (
    <Dialog open close={close} title={title} description="What was written goes back, where nobody touched it since.">
      {!given.runs && <DaysChoice days={days} change={setDays} />}
      {rehearsal.isPending ? (
        <Loading lines={3} />
      ) : rehearsal.isError ? (
        <Failed error={rehearsal.error} retry={() => void rehearsal.refetch()} />
      ) : (
        <div className="flex flex-col gap-3">
          <WhatGoesBack rehearsal={rehearsal.data} />
          {act.isError && (
            <p role="alert" className="text-small text-brick">
              {messageOf(act.error)}
            </p>
          )}
          <div className="flex justify-end gap-2">
            <Button onClick={close}>Cancel</Button>
            <Button
              look="main"
              disabled={nothing || act.isPending || rehearsal.isPlaceholderData}
              onClick={() => act.mutate()}
            >
              Take back {counted(rehearsal.data.runs, 'run')}
            </Button>
          </div>
        </div>
      )}
    </Dialog>
  );
}

/** Narrows what is taken back to what arrived on some days, such as a Tuesday. */
function DaysChoice({ days, change }: { days: Days; change: (days: Days) => void }) {
  return (
    <div className="mb-3 grid grid-cols-2 gap-3">
      <TextField
        label="Arrived from"
        type="date"
        value={days.from}
        onChange={({ target }) => change({ ...days, from: target.value })}
      />
      <TextField
        label="until, with that day"
        type="date"
        value={days.to}
        onChange={({ target }) => change({ ...days, to: target.value })}
      />
    </div>
  );
}
