import type { HistoryEntry } from '@haycart/api';
import { answerKeys, finisherNamed, showRecordValue, type FieldDefinition, type Part } from '@haycart/core';
import { Link } from 'react-router';
import { useDestination } from '../api/destination';
import { exactTime } from '../components/format';
import { Mono } from '../components/sheet';

/** Where a value came from: which submission, which answers, which steps, by whom, when, and what was there before. */
export function TraceOfValue({ field, history }: { field: FieldDefinition; history: readonly HistoryEntry[] }) {
  const entries = history.flatMap((entry) =>
    entry.values.filter((value) => value.field === field.key).map((value) => ({ entry, value })),
  );
  const destination = useDestination();
  const shown = (value: HistoryEntry['values'][number]['before']) =>
    destination ? showRecordValue(destination, field.record, field.key, value) : '';
  if (!entries.length) return <p className="px-4 py-2 text-muted">Nothing is known of its origin.</p>;
  return (
    <ol aria-label={`Trace of ${field.label}`} className="border-t border-hair bg-raised px-4 py-2">
      {entries.map(({ entry, value }) => (
        <li key={entry.id} className="border-b border-hair py-1.5 text-[13px] last:border-b-0">
          <p>
            {entry.cause.submission ? (
              <>
                <Link to={`/submissions?open=${entry.cause.submission}`} className="text-slate underline">
                  {entry.cause.kind === 'import' ? 'A row of a file' : 'A submission'}
                </Link>{' '}
                through the route {entry.cause.label}
              </>
            ) : (
              <>{entry.cause.label || 'Somebody'} changed it</>
            )}
            , <span className="text-muted">{exactTime(entry.at)}</span>
          </p>
          {value.trace && (
            <ol className="mt-1 flex flex-col gap-0.5">
              {value.trace.parts.map(({ part, text }, index) => (
                <li key={index} className="flex gap-2">
                  <Mono className="flex-none rounded-sm bg-slate-soft px-1">{partName(part)}</Mono>
                  <span className="min-w-0 [overflow-wrap:anywhere]">
                    {text || <span className="text-muted">empty</span>}
                  </span>
                </li>
              ))}
              {value.trace.steps
                .filter(({ before, after }) => before !== after)
                .map(({ use, after }, index) => (
                  <li key={`step ${index}`} className="flex gap-2">
                    <span className="flex-none text-muted">{finisherNamed(use)?.label ?? use} made it</span>
                    <span className="min-w-0 [overflow-wrap:anywhere]">{after}</span>
                  </li>
                ))}
            </ol>
          )}
          {!value.trace && entry.cause.submission && (
            <p className="text-muted">It follows from other values or from the place in the pipeline.</p>
          )}
          <p className="text-muted">Before: {value.before === null ? 'blank' : shown(value.before)}</p>
        </li>
      ))}
    </ol>
  );
}

function partName(part: Part): string {
  if ('answer' in part) return answerKeys(part).join(' or ');
  if ('visit' in part) return `visit: ${part.visit}`;
  if ('text' in part) return 'text';
  if ('write' in part) return `${part.write}.${part.field}`;
  return part.decision;
}
