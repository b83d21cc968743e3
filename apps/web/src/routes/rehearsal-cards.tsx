import type { Rehearsal } from '@haycart/api';
import {
  counted,
  fieldOf,
  matchInWords,
  showFieldValue,
  pipelineOf,
  stageOf,
  type Destination,
  type FieldDefinition,
  type FieldTrace,
  type LibraryFile,
  type MadeTask,
  type MailAttachment,
  type PlannedEffect,
  type PlannedWrite,
  type Problem,
  type RenderedMail,
} from '@haycart/core';
import type { ReactNode } from 'react';
import { shortTime } from '../components/format';
import { RenderedMailView } from '../components/rendered-mail';
import { RunAccount } from '../components/run-account';
import { Mono } from '../components/sheet';
import { StateShape } from '../components/state-shape';
import { Change } from '../components/value';
import { CandidateList } from './candidate-list';
import { nameAlone } from './name-alone';

type FieldOption = NonNullable<FieldDefinition['options']>[number];

const STOPPED = {
  write: { state: 'written', title: '' },
  fail: { state: 'failed', title: 'The run would fail' },
  hold: { state: 'held', title: 'The run would wait' },
  skip: { state: 'skipped', title: 'The run would be left out' },
} as const;

/** What a plan would do: a card for each record, what stops it, and the same in sentences. */
export function PlanCards({ plan, destination }: { plan: Rehearsal; destination: Destination }) {
  // A run stops at the write about which a person is asked.
  const asked = plan.reason?.code === 'which-record' ? plan.writes[plan.writes.length - 1] : undefined;
  const blocking = plan.problems.filter(({ severity }) => severity === 'error');
  return (
    <>
      {plan.writes
        .filter(({ did }) => did !== 'none')
        .map((write) => (
          <WriteCard key={write.as} write={write} names={plan.names} destination={destination} />
        ))}
      {(plan.effects ?? []).map((effect, index) => (
        <EffectCard
          key={index}
          effect={effect}
          people={fieldOf(destination, 'contact', 'owner')?.options ?? []}
          files={destination.files ?? []}
        />
      ))}
      {(plan.asks ?? []).map(({ to, mail, inDays, reminder }, index) => (
        <Card
          key={index}
          title={inDays === undefined ? 'Asked by mail first' : `Asked after ${counted(inDays, 'day')}`}
          aside={to}
        >
          {mail && <RenderedMailView mail={mail} />}
          {(reminder || inDays !== undefined) && (
            <p className="mt-1 text-muted">
              {reminder ? `Reminded after ${counted(reminder.inDays, 'day')}, unless` : 'Unless'} somebody answers
              before.
            </p>
          )}
        </Card>
      ))}
      {plan.reason && (
        <Card state={STOPPED[plan.outcome].state} title={STOPPED[plan.outcome].title}>
          <p>{plan.reason.text}</p>
          {asked?.match.candidates && (
            <div className="mt-2">
              <CandidateList record={asked.record} candidates={asked.match.candidates} names={plan.names} />
            </div>
          )}
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

export function ProblemList({ problems }: { problems: readonly Problem[] }) {
  return (
    <ul className="list-disc pl-4">
      {problems.map((problem, index) => (
        <li key={index}>{problem.text}</li>
      ))}
    </ul>
  );
}

/** What a follow-up would make or send, or why it would do nothing; what it changes on a record stands with the record. */
function EffectCard({
  effect: { words, unmet, out, made },
  people,
  files,
}: {
  effect: PlannedEffect;
  people: readonly FieldOption[];
  files: readonly LibraryFile[];
}) {
  if (unmet)
    return (
      <Card state="skipped" title={words}>
        <p className="text-muted">Not done: {unmet}.</p>
      </Card>
    );
  if (made?.make === 'document')
    return (
      <Card title="PDF" aside={made.name}>
        <p className="font-semibold [overflow-wrap:anywhere]">{made.title}</p>
        <dl className="mt-1 grid max-h-[180px] grid-cols-[minmax(0,110px)_minmax(0,1fr)] gap-x-3 overflow-auto text-[13px]">
          {made.rows?.map(({ label, text }, index) => (
            <div key={index} className="contents">
              <dt className="text-muted [overflow-wrap:anywhere]">{label}</dt>
              <dd className="min-w-0 whitespace-pre-line [overflow-wrap:anywhere]">{text}</dd>
            </div>
          ))}
        </dl>
      </Card>
    );
  if (made?.make === 'consent')
    return (
      <Card title={words} aside={made.place}>
        <q className="[overflow-wrap:anywhere]">{made.words}</q>
        {out && <RenderedMailView mail={out.body as unknown as RenderedMail} />}
      </Card>
    );
  if (made)
    return (
      <Card
        title={made.make === 'task' ? 'Task' : 'Note'}
        aside={made.make === 'task' ? taskInWords(made, people) : ''}
      >
        {made.title && <p className="font-semibold [overflow-wrap:anywhere]">{made.title}</p>}
        <p className="whitespace-pre-line [overflow-wrap:anywhere]">{made.make === 'task' ? made.body : made.text}</p>
      </Card>
    );
  if (!out) return null;
  if (out.kind === 'mail')
    return (
      <Card title="Mail" aside={out.to}>
        <RenderedMailView mail={out.body as unknown as RenderedMail} />
        <Attached attached={(out.body as { attached?: MailAttachment[] }).attached} files={files} />
      </Card>
    );
  const said = out.kind === 'post' ? null : (out.body as { text: string }).text;
  if (said !== null)
    return (
      <Card title={words} aside={out.kind === 'chat' ? 'by chat' : 'by text message'}>
        <p className="whitespace-pre-line [overflow-wrap:anywhere]">{said}</p>
      </Card>
    );
  return (
    <Card title={words} aside={new URL(out.to).pathname}>
      <pre
        tabIndex={0}
        aria-label={`What it says: ${words}`}
        className="max-h-[180px] overflow-auto font-mono text-[12px] leading-[17px] whitespace-pre-wrap [overflow-wrap:anywhere]"
      >
        {JSON.stringify(out.body, null, 2)}
      </pre>
    </Card>
  );
}

/** What goes with a mail, by name. */
function Attached({
  attached = [],
  files,
}: {
  attached: readonly MailAttachment[] | undefined;
  files: readonly LibraryFile[];
}) {
  if (!attached.length) return null;
  const names = attached.map((one) => {
    if ('document' in one) return one.name;
    if ('uploads' in one) return 'what the visitor sent';
    return files.find(({ key }) => key === one.file)?.name ?? one.file;
  });
  return <p className="mt-2 text-muted [overflow-wrap:anywhere]">Attached: {names.join(', ')}</p>;
}

/** Whose a task is, when it is due, and how urgent it is where that is not as usual. */
function taskInWords({ owner, due, priority }: MadeTask, people: readonly FieldOption[]): string {
  const whose = people.find(({ key }) => key === owner)?.label ?? 'for nobody yet';
  return [whose, due ? `due ${shortTime(due)}` : '', priority === 'normal' ? '' : priority].filter(Boolean).join(', ');
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
      aside={known ? nameAlone(known) : 'new'}
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
        {matchInWords(write, destination)}
      </p>
      {write.match.candidates && (
        <details className="mt-1">
          <summary className="mb-1 cursor-pointer text-small text-muted">What that comes from</summary>
          <CandidateList record={write.record} candidates={write.match.candidates} names={names} />
        </details>
      )}
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

export function Card({
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
