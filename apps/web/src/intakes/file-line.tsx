import type { SheetFileShape, SheetTakenBack } from '@haycart/api';
import { counted } from '@haycart/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '../api/client';
import { Button } from '../components/button';
import { StateShape } from '../components/state-shape';
import { Time } from '../components/time';
import { useRemovedInWords } from '../components/what-goes-back';
import { TakeFileBack } from './take-file-back';

const DELIMITERS: Readonly<Record<string, string>> = { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' };
const SHAPES = { reading: 'held', read: 'written', cancelled: 'failed', unreadable: 'failed' } as const;

/** One file of an intake: how it was read, and what taking it back did. */
export function FileLine({ file }: { file: SheetFileShape }) {
  const client = useQueryClient();
  const [takingBack, setTakingBack] = useState(false);
  const cancel = useMutation({
    mutationFn: () => call('POST', `/sheets/files/${file.id}/cancel`),
    onSettled: () => client.invalidateQueries({ queryKey: ['submissions'] }),
  });
  return (
    <li className="border-b border-hair py-2 last:border-b-0">
      <p className="flex items-center gap-2">
        <StateShape state={SHAPES[file.state]} />
        <b className="min-w-0 flex-1 truncate font-semibold">{file.name}</b>
        <Time at={file.at} className="text-muted" />
      </p>
      <p className="mt-0.5 flex items-center gap-2 pl-5 text-small text-muted">
        <span className="min-w-0 flex-1">{file.problem ?? howRead(file)}</span>
        {file.state === 'reading' && (
          <Button className="!h-7" disabled={cancel.isPending} onClick={() => cancel.mutate()}>
            Cancel
          </Button>
        )}
        {file.state !== 'reading' && file.kept > 0 && (file.takenBack?.done !== false || file.takenBack.stopped) && (
          <Button className="!h-7" onClick={() => setTakingBack(true)}>
            Take back…
          </Button>
        )}
      </p>
      {file.left.map((worksheet) => (
        <LeftWorksheet key={worksheet} file={file.id} worksheet={worksheet} />
      ))}
      {file.takenBack && <TakenBack back={file.takenBack} />}
      {takingBack && <TakeFileBack file={file} close={() => setTakingBack(false)} />}
    </li>
  );
}

/** A worksheet of a workbook that was not read, to be brought in too. */
function LeftWorksheet({ file, worksheet }: { file: string; worksheet: string }) {
  const client = useQueryClient();
  const bring = useMutation({
    mutationFn: () => call('POST', `/sheets/files/${file}/worksheets`, { name: worksheet }),
    onSettled: () => client.invalidateQueries({ queryKey: ['submissions'] }),
  });
  return (
    <p className="mt-1 flex items-center gap-2 pl-5 text-small text-muted">
      <span className="min-w-0 flex-1">Its worksheet “{worksheet}” was not read.</span>
      <Button className="!h-7" disabled={bring.isPending} onClick={() => bring.mutate()}>
        Bring it in too
      </Button>
    </p>
  );
}

function howRead({ kept, refused, state, columns, delimiter, encoding, worksheet }: SheetFileShape): string {
  const how = [
    worksheet ? `worksheet “${worksheet}”` : '',
    columns?.length ? counted(columns.length, 'column') : '',
    delimiter ? DELIMITERS[delimiter] : '',
    encoding ?? '',
  ].filter(Boolean);
  const read = `${counted(kept, 'row')} ${state === 'reading' ? 'read so far' : 'read'}`;
  const not = refused ? `, ${refused.toLocaleString('en-GB')} refused` : '';
  return `${read}${not}${state === 'cancelled' ? ', then cancelled' : ''}; ${how.join(', ')}`;
}

function TakenBack({ back: { done, stopped, runs, of, removed, changed, left } }: { back: SheetTakenBack }) {
  const gone = useRemovedInWords()(removed);
  const told = [
    gone && `${gone} removed`,
    changed > 0 && `${counted(changed, 'record')} gone back`,
    left > 0 && `${counted(left, 'thing')} left as ${left === 1 ? 'it is' : 'they are'}`,
  ].filter(Boolean);
  return (
    <p className="mt-0.5 pl-5 text-small text-muted" role="status">
      {done
        ? `Taken back: ${told.join(', ') || 'nothing of it had been written'}.`
        : `${stopped ? 'Stopped after an error' : 'Being taken back'}: ${runs.toLocaleString('en-GB')} of ${counted(of, 'run')}.${stopped ? ' Take it back again to go on.' : ''}`}
    </p>
  );
}
