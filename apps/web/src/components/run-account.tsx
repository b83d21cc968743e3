import type { AccountStep } from '@haycart/core';
import { Link } from 'react-router';
import { StateShape, type ShownState } from './state-shape';
import { Change } from './value';
import { Mono } from './sheet';
import { exactTime } from './format';

const MARKS: Partial<Record<AccountStep['step'], ShownState>> = {
  created: 'written',
  changed: 'written',
  failed: 'failed',
  skipped: 'skipped',
  held: 'held',
  problem: 'held',
};
const PLURALS: Record<string, string> = { contact: 'contacts', company: 'companies', lead: 'leads', deal: 'deals' };

/** What happened, step by step from top to bottom, in plain sentences. */
export function RunAccount({
  account,
  receivedAt,
  isUndone = false,
}: {
  account: readonly AccountStep[];
  receivedAt?: string;
  /** Whether all of it was taken back since. */
  isUndone?: boolean;
}) {
  const steps = grouped(account);
  return (
    <ol className="relative">
      {steps.map(({ step, values }, index) => (
        <li key={index} className="relative grid grid-cols-[11px_minmax(0,1fr)] gap-x-3 pb-3.5">
          {index < steps.length - 1 && (
            <span aria-hidden className="absolute top-[23px] bottom-[-6px] left-[5px] w-px bg-line" />
          )}
          <span className="pt-[5px]">
            <StateShape state={(!step.undone && !isUndone && MARKS[step.step]) || 'skipped'} />
          </span>
          <div className="min-w-0">
            <p className={`[overflow-wrap:anywhere] ${step.step === 'failed' ? 'font-semibold text-brick' : ''}`}>
              {step.record && !step.record.id.startsWith('new:') ? (
                <Link to={`/records/${PLURALS[step.record.kind]}/${step.record.id}`} className="hover:underline">
                  {step.text}
                </Link>
              ) : (
                step.text
              )}
            </p>
            {step.note && <p className="text-small text-muted">{step.note}</p>}
            {index === 0 && receivedAt && <Mono className="text-muted">{exactTime(receivedAt)}</Mono>}
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
        </li>
      ))}
    </ol>
  );
}

/** Lines about single values belong to the step above them. */
function grouped(account: readonly AccountStep[]): { step: AccountStep; values: AccountStep[] }[] {
  const steps: { step: AccountStep; values: AccountStep[] }[] = [];
  for (const line of account) {
    const last = steps[steps.length - 1];
    if (line.step === 'value' && last) last.values.push(line);
    else steps.push({ step: line, values: [] });
  }
  return steps;
}
