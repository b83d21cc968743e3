import type { IntakeShape, SheetShape } from '@haycart/api';
import { counted } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { sheetQuery } from '../api/queries';
import { Button, buttonLook } from '../components/button';
import { Sheet } from '../components/sheet';
import { StateShape } from '../components/state-shape';
import { Failed, Loading } from '../components/status';
import { BringFile } from './bring-file';
import { FileLine } from './file-line';

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

function Became({ intake, sheet }: { intake: IntakeShape; sheet: SheetShape }) {
  const { rows, waiting, written, held, skipped, failed, takenBack, refused } = sheet;
  const untouched = rows - waiting - written - held - skipped - failed - takenBack;
  const lines = [
    ['written', 'written', written],
    ['held', 'held', held],
    ['skipped', 'skipped', skipped],
    ['failed', 'failed', failed],
    ...(takenBack ? ([['taken-back', 'taken back', takenBack]] as const) : []),
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
              to={`/submissions?intake=${intake.key}&outcome=${state}`}
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
          {counted(untouched, 'row')} no route has taken yet.{' '}
          <Link to={`/routes?new=${intake.key}`} className="text-slate underline">
            Make a route from this intake
          </Link>
          , publish it, and let it process what came before.
        </p>
      )}
      {lost > 0 && (
        <p className="flex flex-wrap items-center gap-2">
          <a href={`/api/v1/sheets/${intake.key}/refused.csv`} className={buttonLook('quiet')} download>
            Export the {counted(lost, 'refused row')}
          </a>
          <span className="text-small text-muted">Correct them, and bring the file in again.</span>
        </p>
      )}
    </Sheet>
  );
}
