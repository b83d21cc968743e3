import { counted, type AccountStep } from '@haycart/core';
import { Link } from 'react-router';
import { StateShape, type ShownState } from './state-shape';
import { Change } from './value';
import { exactTime, toTheSecond } from './format';

const MARKS: Partial<Record<AccountStep['step'], ShownState>> = {
  created: 'written',
  changed: 'written',
  made: 'written',
  failed: 'failed',
  skipped: 'skipped',
  held: 'held',
  problem: 'held',
};
const QUIET: ReadonlySet<AccountStep['step']> = new Set(['kept', 'nothing']);
const PLURALS: Record<string, string> = { contact: 'contacts', company: 'companies', lead: 'leads', deal: 'deals' };

interface ToldStep {
  step: AccountStep;
  /** The lines about single values that belong to it. */
  values: AccountStep[];
}

/** What happened, step by step from top to bottom, in plain sentences. */
export function RunAccount({
  account,
  receivedAt,
  isUndone = false,
  routeId,
}: {
  account: readonly AccountStep[];
  receivedAt?: string;
  /** The route whose tables decided, for the way to them. */
  routeId?: string;
  /** Whether all of it was taken back since. */
  isUndone?: boolean;
}) {
  return (
    <ol>
      {folded(grouped(account)).map((steps, index) => (
        <li key={index} className="border-b border-hair py-2 last:border-b-0">
          {steps.length === 1 ? (
            <Step {...steps[0]!} at={index === 0 ? receivedAt : undefined} isUndone={isUndone} routeId={routeId} />
          ) : (
            <details>
              <summary className="cursor-pointer text-muted">
                {counted(steps.length, 'step')} that changed nothing
              </summary>
              {steps.map((step, at) => (
                <div key={at} className="pt-2">
                  <Step {...step} isUndone={isUndone} routeId={routeId} />
                </div>
              ))}
            </details>
          )}
        </li>
      ))}
    </ol>
  );
}

/** The table as it is in the draft, at the row. */
function tablePath(routeId: string, { name, row }: NonNullable<AccountStep['table']>): string {
  return `/routes/${routeId}/decide/${encodeURIComponent(name)}${row === null ? '' : `?row=${row + 1}`}`;
}

function Step({
  step,
  values,
  at,
  isUndone,
  routeId,
}: ToldStep & { at?: string | undefined; isUndone: boolean; routeId: string | undefined }) {
  return (
    <div className="grid grid-cols-[11px_minmax(0,1fr)] gap-x-3">
      <span className="flex h-5 items-center">
        <StateShape state={(!step.undone && !isUndone && MARKS[step.step]) || 'skipped'} />
      </span>
      <div className="min-w-0">
        <div className="flex gap-3">
          <p
            className={`min-w-0 flex-1 [overflow-wrap:anywhere] ${step.step === 'failed' ? 'font-semibold text-brick' : ''} ${QUIET.has(step.step) ? 'text-muted' : ''}`}
          >
            {step.table && routeId ? (
              <Link to={tablePath(routeId, step.table)} className="hover:underline">
                {step.text}
              </Link>
            ) : step.record && !step.record.id.startsWith('new:') ? (
              <Link to={`/records/${PLURALS[step.record.kind]}/${step.record.id}`} className="hover:underline">
                {step.text}
              </Link>
            ) : (
              step.text
            )}
          </p>
          {at && (
            <time dateTime={at} title={exactTime(at)} className="flex-none font-mono text-[12.5px] text-muted">
              {toTheSecond(at)}
            </time>
          )}
        </div>
        {step.note && <p className="text-small text-muted">{step.note}</p>}
        {values.length > 0 && (
          <dl className="mt-1 grid grid-cols-[minmax(0,92px)_minmax(0,1fr)] gap-x-2 text-[13px]">
            {values.map((value) => (
              <div key={value.text} className="contents">
                <dt className="text-muted">{value.text}</dt>
                <dd className="min-w-0">
                  <Change before={value.before} after={value.after} note={value.note} />
                </dd>
              </div>
            ))}
          </dl>
        )}
      </div>
    </div>
  );
}

/** Lines about single values belong to the step above them. */
function grouped(account: readonly AccountStep[]): ToldStep[] {
  const steps: ToldStep[] = [];
  for (const line of account) {
    const last = steps[steps.length - 1];
    if (line.step === 'value' && last) last.values.push(line);
    else steps.push({ step: line, values: [] });
  }
  return steps;
}

/** Several steps in a row that changed nothing are one line to open. */
function folded(steps: readonly ToldStep[]): ToldStep[][] {
  const lines: ToldStep[][] = [];
  for (const told of steps) {
    const before = lines.at(-1);
    if (before && isQuiet(told) && isQuiet(before[0]!)) before.push(told);
    else lines.push([told]);
  }
  return lines;
}

function isQuiet({ step, values }: ToldStep): boolean {
  return QUIET.has(step.step) && values.length === 0;
}
