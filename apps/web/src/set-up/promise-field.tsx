import { PROMISE_MINUTES, type AnswerPromise, type MissedStep } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { peopleQuery } from '../api/queries';
import { SavedField } from './saved-field';

const { least, most } = PROMISE_MINUTES;
const WHOLE = /^\d{1,5}$/;
/** What happens when it is missed, as one choice: a task stands with whom it is for. */
const NEXT = 'next';

/** How soon something is answered, and what follows when it is not. */
export function PromiseField({
  promise,
  change,
}: {
  promise: AnswerPromise | null;
  change: (promise: AnswerPromise | null) => void;
}) {
  const people = (useQuery(peopleQuery).data ?? []).filter(({ active }) => active);
  const minutes = (text: string) =>
    text.trim() === '' ? change(null) : change({ ...promise, minutes: Number(text.trim()) });
  const missed = promise?.missed;
  return (
    <div role="group" aria-label="Answer in time" className="flex flex-wrap items-center gap-x-2 gap-y-1">
      <span>Answered within</span>
      <span className="w-16">
        <SavedField
          label="Working minutes"
          inputMode="numeric"
          placeholder="any"
          className="border-faint! text-right tabular-nums"
          value={promise ? String(promise.minutes) : ''}
          check={(text) => {
            const typed = text.trim();
            const fits = typed === '' || (WHOLE.test(typed) && Number(typed) >= least && Number(typed) <= most);
            return fits ? null : `A whole number from ${least} to ${most}, or nothing`;
          }}
          save={minutes}
        />
      </span>
      <span>minutes of working time</span>
      {promise && (
        <label className="flex min-w-0 items-center gap-2">
          <span>and when it is not</span>
          <select
            aria-label="When it is not answered in time"
            value={missed?.do === 'task' ? missed.person : (missed?.do ?? '')}
            onChange={({ target }) => change({ minutes: promise.minutes, ...followed(target.value) })}
            className="field-sizing-content h-8 max-w-full min-w-0 rounded border border-faint bg-raised px-2"
          >
            <option value="">it is shown as late</option>
            <option value={NEXT}>the next of the team gets it</option>
            {people.map(({ key, name }) => (
              <option key={key} value={key}>
                a task for {name}
              </option>
            ))}
          </select>
        </label>
      )}
    </div>
  );
}

function followed(choice: string): { missed?: MissedStep } {
  if (choice === '') return {};
  return { missed: choice === NEXT ? { do: 'next' } : { do: 'task', person: choice } };
}
