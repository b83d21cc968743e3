import type { Rehearsal as RehearsalShape, RouteShape, SubmissionShape } from '@haycart/api';
import type { Destination, JsonObject, Problem } from '@haycart/core';
import { ChevronLeft, ChevronRight, Pencil } from 'lucide-react';
import { useState } from 'react';
import { IconButton } from '../components/button';
import { usePageKeys } from '../components/list-keys';
import { messageOf } from '../components/status';
import { TextArea } from '../components/text-field';
import { Time } from '../components/time';
import { Card, PlanCards, ProblemList } from './rehearsal-cards';
import { RehearseMany } from './rehearse-many';
import { SampleFinder } from './sample-finder';
import { SaveCase } from './save-case';
import { SavedCases, useCaseResults } from './saved-cases';

export interface SampleChoice {
  samples: readonly SubmissionShape[];
  /** Made-up answers that stand in while nothing came. */
  madeUp: JsonObject | null;
  total: number;
  index: number;
  step: (by: number) => void;
  /** The text of a sample that is edited by hand; null while a stored one is used. */
  typed: string | null;
  type: (text: string | null) => void;
  typedProblem: string | null;
}

/** What the draft would do with one sample. Nothing is written. */
export function Rehearsal({
  plan,
  error,
  inTheWay,
  destination,
  choice,
  planning,
  route,
}: {
  route: RouteShape;
  plan: RehearsalShape | undefined;
  error: unknown;
  /** Why the draft cannot be rehearsed at all. */
  inTheWay: readonly Problem[];
  destination: Destination;
  choice: SampleChoice;
  planning: boolean;
}) {
  const { samples, madeUp, index, step, typed, type, typedProblem, total } = choice;
  const sample = samples[index];
  const intake = sample?.intake.key ?? route.draft.from[0];
  const [look, setLook] = useState<Look>('sample');
  const results = useCaseResults(route.id);
  const otherwise = results?.filter(({ differences }) => differences.length).length ?? 0;
  usePageKeys({ '[': () => step(-1), ']': () => step(1) });
  return (
    <aside
      aria-label="Rehearsal"
      className="flex min-h-0 w-full flex-none flex-col border-ink bg-sheet max-lg:border-t-2 lg:w-[424px] lg:border-l-2"
    >
      <header className="flex items-baseline gap-2 px-5 pt-4">
        <h2 className="text-lg leading-6">Rehearsal</h2>
        <span className="ml-auto text-muted" aria-live="polite">
          {planning ? 'working it out' : 'nothing is written or sent'}
        </span>
      </header>
      <div role="tablist" aria-label="Rehearsed on" className="mx-5 mt-2 flex gap-1 border-b border-line">
        {LOOKS.map(([key, words]) => (
          <button
            key={key}
            type="button"
            role="tab"
            aria-selected={look === key}
            onClick={() => setLook(key)}
            className={`border-b-2 px-2 pb-1.5 ${look === key ? 'border-straw font-semibold' : 'border-transparent'}`}
          >
            {words}
            {key === 'cases' && otherwise > 0 && <span className="ml-1.5 text-brick">{otherwise} otherwise</span>}
          </button>
        ))}
      </div>
      {look !== 'sample' && (
        <div className="min-h-0 flex-1 overflow-y-auto px-5 py-3" tabIndex={0} aria-label="Rehearsed">
          {look === 'many' ? (
            <RehearseMany routeId={route.id} version={route.version} />
          ) : (
            <SavedCases routeId={route.id} />
          )}
        </div>
      )}
      <div className={`flex items-center gap-2 px-5 py-2 ${look === 'sample' ? '' : 'hidden'}`}>
        <IconButton
          label="Sample before ([)"
          disabled={typed !== null || index <= 0}
          onClick={() => step(-1)}
          className="!size-6 border border-line"
        >
          <ChevronLeft className="size-4" aria-hidden />
        </IconButton>
        <IconButton
          label="Next sample (])"
          disabled={typed !== null || index >= samples.length - 1}
          onClick={() => step(1)}
          className="!size-6 border border-line"
        >
          <ChevronRight className="size-4" aria-hidden />
        </IconButton>
        <span className="min-w-0 flex-1 truncate">
          {typed !== null ? (
            <b className="font-semibold">A sample of your own</b>
          ) : sample ? (
            <>
              <b className="font-semibold">{sample.who || sample.email || 'Unnamed'}</b>{' '}
              <span className="text-muted">
                <Time at={sample.receivedAt} relative />, {index + 1} of {total}
              </span>
            </>
          ) : (
            <span className="text-muted">
              {madeUp ? 'made-up answers, as none came yet' : 'no submission yet: type one'}
            </span>
          )}
        </span>
        <SampleFinder intake={intake} route={route.id} disabled={typed !== null} />
        <IconButton
          label={typed === null ? 'Edit the sample by hand' : 'Back to real samples'}
          aria-pressed={typed !== null}
          onClick={() =>
            type(
              typed === null
                ? JSON.stringify(sample?.payload ?? madeUp ?? { email: 'ada@fennwick.example' }, null, 2)
                : null,
            )
          }
          className={typed === null ? '' : 'bg-straw-soft'}
        >
          <Pencil className="size-4" aria-hidden />
        </IconButton>
      </div>
      <div
        className={`flex min-h-0 flex-1 flex-col gap-3 overflow-y-auto px-5 pb-5 ${look === 'sample' ? '' : 'hidden'}`}
        tabIndex={0}
        aria-label="What the draft would do"
      >
        {typed !== null && (
          <TextArea
            label="The sample, as JSON"
            hideLabel
            rows={9}
            value={typed}
            spellCheck={false}
            onChange={({ target }) => type(target.value)}
            className="font-mono text-[12px] leading-[17px]"
            error={typedProblem ?? undefined}
          />
        )}
        {error ? (
          <Card state="failed" title="This cannot be rehearsed">
            <p>{messageOf(error)}</p>
          </Card>
        ) : null}
        {inTheWay.length > 0 && (
          <Card state="failed" title="This cannot be rehearsed">
            <ProblemList problems={inTheWay} />
          </Card>
        )}
        {plan && <PlanCards plan={plan} destination={destination} />}
        {plan && (typed === null ? sample : !typedProblem) && (
          <SaveCase routeId={route.id} typed={typed} sample={sample} />
        )}
      </div>
    </aside>
  );
}

/** On what the draft is rehearsed. */
type Look = 'sample' | 'many' | 'cases';
const LOOKS: readonly [Look, string][] = [
  ['sample', 'One sample'],
  ['many', 'Many'],
  ['cases', 'Saved cases'],
];
