import type { IntakeShape, SheetFileShape, SheetShape } from '@haycart/api';
import { counted } from '@haycart/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { call } from '../api/client';
import { sheetQuery } from '../api/queries';
import { Button, buttonLook } from '../components/button';
import { Sheet } from '../components/sheet';
import { StateShape } from '../components/state-shape';
import { Failed, Loading } from '../components/status';
import { Time } from '../components/time';
import { BringFile } from './bring-file';

/** The files of an intake, how far they are read, and what became of their rows. */
export function SheetSide({ intake }: { intake: IntakeShape }) {
  const sheet = useQuery(sheetQuery(intake.key));
  const [bringing, setBringing] = useState(false);
  if (sheet.isPending) return <Loading />;
  if (sheet.isError) return <Failed error={sheet.error} retry={() => void sheet.refetch()} />;
  return (
    <div className="grid items-start gap-5 lg:grid-cols-2">
      <Sheet className="p-4">
        <header className="mb-1 flex items-center gap-2">
          <h2 className="mr-auto text-base">Files</h2>
          <Button onClick={() => setBringing(true)}>Bring another</Button>
        </header>
        <ul>
          {sheet.data.files.map((file) => (
            <FileLine key={file.id} file={file} />
          ))}
        </ul>
      </Sheet>
      <Became intake={intake} sheet={sheet.data} />
      {bringing && <BringFile into={intake} close={() => setBringing(false)} />}
    </div>
  );
}

const DELIMITERS: Readonly<Record<string, string>> = { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' };

function FileLine({ file }: { file: SheetFileShape }) {
  const client = useQueryClient();
  const cancel = useMutation({
    mutationFn: () => call('POST', `/sheets/files/${file.id}/cancel`),
    onSettled: () => client.invalidateQueries({ queryKey: ['submissions'] }),
  });
  const how = [
    file.columns?.length ? counted(file.columns.length, 'column') : '',
    file.delimiter ? DELIMITERS[file.delimiter] : '',
    file.encoding ?? '',
  ].filter(Boolean);
  return (
    <li className="border-b border-hair py-2 last:border-b-0">
      <p className="flex items-center gap-2">
        <StateShape state={file.state === 'read' ? 'written' : file.state === 'reading' ? 'held' : 'failed'} />
        <b className="min-w-0 flex-1 truncate font-semibold">{file.name}</b>
        <Time at={file.at} className="text-muted" />
      </p>
      <p className="mt-0.5 flex items-center gap-2 pl-5 text-small text-muted">
        <span className="min-w-0 flex-1">
          {file.problem ??
            `${counted(file.kept, 'row')} ${file.state === 'reading' ? 'read so far' : 'read'}${file.refused ? `, ${file.refused.toLocaleString('en-GB')} refused` : ''}${file.state === 'cancelled' ? ', then cancelled' : ''}; ${how.join(', ')}`}
        </span>
        {file.state === 'reading' && (
          <Button className="!h-7" disabled={cancel.isPending} onClick={() => cancel.mutate()}>
            Cancel
          </Button>
        )}
      </p>
    </li>
  );
}

function Became({ intake, sheet }: { intake: IntakeShape; sheet: SheetShape }) {
  const { rows, waiting, written, held, skipped, failed, refused } = sheet;
  const untouched = rows - waiting - written - held - skipped - failed;
  const lines = [
    ['written', 'written', written],
    ['held', 'held', held],
    ['skipped', 'skipped', skipped],
    ['failed', 'failed', failed],
  ] as const;
  const lost = failed + refused;
  return (
    <Sheet className="flex flex-col gap-2 p-4">
      <h2 className="text-base">What became of its rows</h2>
      <ul>
        {lines.map(([state, word, times]) => (
          <li key={word} className="flex items-center gap-2 border-b border-hair py-1">
            <StateShape state={state} />
            <Link
              to={`/submissions?intake=${intake.key}&outcome=${word}`}
              className="flex-1 text-slate hover:underline"
            >
              {word}
            </Link>
            <span className="tabular-nums">{times.toLocaleString('en-GB')}</span>
          </li>
        ))}
      </ul>
      {waiting > 0 && (
        <div
          role="progressbar"
          aria-label="Routing its rows"
          aria-valuenow={Math.round(((rows - waiting) / rows) * 100)}
          className="h-2 rounded bg-hair"
        >
          <div className="h-full rounded bg-green" style={{ width: `${((rows - waiting) / rows) * 100}%` }} />
        </div>
      )}
      {untouched > 0 && (
        <p className="text-muted">
          {counted(untouched, 'row')} no route has taken yet. Make a route from this intake, publish it, and let it
          catch up.{' '}
          <Link to="/routes" className="text-slate underline">
            Routes
          </Link>
        </p>
      )}
      {lost > 0 && (
        <p className="flex flex-wrap items-center gap-2">
          <a href={`/api/v1/sheets/${intake.key}/refused.csv`} className={buttonLook('quiet')} download>
            Take away the {counted(lost, 'refused row')}
          </a>
          <span className="text-small text-muted">Put them right, and bring the file again.</span>
        </p>
      )}
    </Sheet>
  );
}
