import type { Rehearsal as RehearsalShape, RouteShape, SubmissionShape } from '@haycart/api';
import {
  showFieldValue,
  pipelineOf,
  recordWord,
  stageOf,
  type Destination,
  type FieldTrace,
  type PlannedWrite,
  type Problem,
} from '@haycart/core';
import { ChevronLeft, ChevronRight, Pencil } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { IconButton } from '../components/button';
import { usePageKeys } from '../components/list-keys';
import { Mono } from '../components/sheet';
import { StateShape } from '../components/state-shape';
import { messageOf } from '../components/status';
import { TextArea } from '../components/text-field';
import { Time } from '../components/time';
import { Change } from '../components/value';
import { RunAccount } from '../components/run-account';
import { RehearseMany } from './rehearse-many';
import { SampleFinder } from './sample-finder';
import { SaveCase } from './save-case';
import { SavedCases, useCaseResults } from './saved-cases';

export interface SampleChoice {
  samples: readonly SubmissionShape[];
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
  const { samples, index, step, typed, type, typedProblem, total } = choice;
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
          {planning ? 'working it out' : 'nothing is written'}
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
            <span className="text-muted">no submission yet: type one</span>
          )}
        </span>
        <SampleFinder intake={intake} route={route.id} disabled={typed !== null} />
        <IconButton
          label={typed === null ? 'Edit the sample by hand' : 'Back to real samples'}
          aria-pressed={typed !== null}
          onClick={() =>
            type(typed === null ? JSON.stringify(sample?.payload ?? { email: 'ada@fennwick.example' }, null, 2) : null)
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

const STOPPED = {
  write: { state: 'written', title: '' },
  fail: { state: 'failed', title: 'The run would fail' },
  hold: { state: 'held', title: 'The run would wait for a person' },
  skip: { state: 'skipped', title: 'The run would be left out' },
} as const;

/** On what the draft is rehearsed. */
type Look = 'sample' | 'many' | 'cases';
const LOOKS: readonly [Look, string][] = [
  ['sample', 'One sample'],
  ['many', 'Many'],
  ['cases', 'Saved cases'],
];

function PlanCards({ plan, destination }: { plan: RehearsalShape; destination: Destination }) {
  const blocking = plan.problems.filter(({ severity }) => severity === 'error');
  return (
    <>
      {plan.writes
        .filter(({ did }) => did !== 'none')
        .map((write) => (
          <WriteCard key={write.as} write={write} names={plan.names} destination={destination} />
        ))}
      {plan.reason && (
        <Card state={STOPPED[plan.outcome].state} title={STOPPED[plan.outcome].title}>
          <p>{plan.reason.text}</p>
        </Card>
      )}
      {blocking.length > 0 && !plan.reason && (
        <Card state="failed" title="In the way">
          <ProblemList problems={blocking} />
        </Card>
      )}
      <details className="border-t border-line pt-3">
        <summary className="mb-2 cursor-pointer font-semibold">The same in sentences</summary>
        <RunAccount account={plan.account} />
      </details>
    </>
  );
}

function ProblemList({ problems }: { problems: readonly Problem[] }) {
  return (
    <ul className="list-disc pl-4">
      {problems.map((problem, index) => (
        <li key={index}>{problem.text}</li>
      ))}
    </ul>
  );
}

const DID: Record<PlannedWrite['did'], string> = {
  create: 'is created',
  change: 'changes',
  keep: 'stays as it is',
  none: '',
};

function WriteCard({
  write,
  names,
  destination,
}: {
  write: PlannedWrite;
  names: Record<string, string>;
  destination: Destination;
}) {
  const lines = write.fields.filter(
    (trace) =>
      trace.why !== 'derived' &&
      (trace.did === 'write' ||
        trace.did === 'clear' ||
        (trace.did === 'keep' && (trace.offered !== null || trace.why === 'unreadable'))),
  );
  const known = write.id ? names[write.id] : undefined;
  return (
    <Card
      title={
        <>
          <span className="capitalize">{write.record}</span> {DID[write.did]}
        </>
      }
      aside={known ? known.split(' ').slice(2).join(' ') : 'new'}
    >
      <dl className="grid grid-cols-[minmax(0,108px)_minmax(0,1fr)] gap-x-2 gap-y-0.5">
        {lines.map((trace) => (
          <FieldLine key={trace.field} trace={trace} write={write} destination={destination} />
        ))}
        {write.place && (
          <>
            <dt className="text-muted">Stage</dt>
            <dd>{placeText(write, destination)}</dd>
          </>
        )}
      </dl>
      <p className={`text-small text-muted ${lines.length || write.place ? 'mt-1.5' : ''}`}>
        {matchText(write, recordWord(destination, write.record))}
      </p>
    </Card>
  );
}

function FieldLine({
  trace,
  write,
  destination,
}: {
  trace: FieldTrace;
  write: PlannedWrite;
  destination: Destination;
}) {
  const field = destination.fields.find(({ record, key }) => record === write.record && key === trace.field);
  const show = (value: FieldTrace['before']) => showFieldValue(field, value);
  const kept = trace.did === 'keep';
  return (
    <>
      <dt className="truncate text-muted">{field?.label ?? trace.field}</dt>
      <dd className="min-w-0">
        {kept ? (
          <span className="break-words">
            {trace.why === 'unreadable' ? (
              <span className="text-brick">what came in does not fit</span>
            ) : (
              <>
                {show(trace.before)} <span className="text-muted">kept, {show(trace.offered)} not written</span>
              </>
            )}
          </span>
        ) : (
          <Change before={write.did === 'create' ? undefined : show(trace.before)} after={show(trace.after)} />
        )}
      </dd>
    </>
  );
}

function placeText({ place }: PlannedWrite, destination: Destination): ReactNode {
  const pipeline = pipelineOf(destination, place!.pipeline);
  const text = `${pipeline?.name ?? place!.pipeline}, ${stageOf(pipeline, place!.stage)?.name ?? place!.stage}`;
  if (place!.did === 'placed' || place!.did === 'moved') return <Change after={text} />;
  return (
    <>
      {text} <span className="text-muted">{place!.did === 'stays' ? 'stays there' : 'left as it is'}</span>
    </>
  );
}

function matchText({ match, record, did }: PlannedWrite, word: string): string {
  if (match.by === 'open-deal') return `The contact has this ${word} in the pipeline already.`;
  if (match.by === 'open-lead') return `The ${word} with this address is still open.`;
  if (match.by)
    return `Recognised by ${match.by === 'email' ? 'e-mail' : match.by}, ${match.found === 1 ? `the only ${record} with it` : `the first of ${match.found}`}.`;
  if (did !== 'create') return '';
  if (record === 'deal') return `The contact has no such ${word} in the pipeline.`;
  return match.key ? `No ${record} has ${match.key} yet.` : 'Nothing to recognise it by.';
}

function Card({
  title,
  aside,
  state,
  children,
}: {
  title: ReactNode;
  aside?: ReactNode;
  state?: 'written' | 'failed' | 'held' | 'skipped';
  children: ReactNode;
}) {
  return (
    <section className={`rounded border bg-raised ${state === 'failed' ? 'border-brick' : 'border-line'}`}>
      <header className="flex items-center gap-2 border-b border-hair px-3 py-1.5">
        {state && <StateShape state={state} />}
        <h3 className="flex-none font-(family-name:--font-text) text-[14px] font-semibold tracking-normal">{title}</h3>
        {aside && <Mono className="ml-auto truncate text-muted">{aside}</Mono>}
      </header>
      <div className="px-3 py-2 text-[13.5px]">{children}</div>
    </section>
  );
}
