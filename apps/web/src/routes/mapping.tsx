import {
  addedWrite,
  arrives,
  counted,
  isAboutSending,
  requiredUnfed,
  shorten,
  type Destination,
  type Fill,
  type Plan,
  type Problem,
  type RouteDefinition,
  type Suggestion,
  type ValueTrace,
  type Write,
} from '@haycart/core';
import type { ProfileFieldShape } from '@haycart/api';
import { Trash2 } from 'lucide-react';
import { Button, IconButton } from '../components/button';
import { Value } from '../components/value';
import { changeFill, useDraft } from './draft';
import { AddField } from './add-field';
import { FinishersCell } from './finishers-cell';
import { PartsCell } from './parts-cell';
import { DragAnswers, useAnswerDrop } from './drag-answer';
import { Suggestions } from './suggestions';
import { UseAnswer } from './use-answer';
import { WrittenWhen } from './written-when';

export interface MappingProps {
  definition: RouteDefinition;
  destination: Destination;
  incoming: readonly ProfileFieldShape[];
  /** The values of the sample, by key. */
  sample: ReadonlyMap<string, string>;
  plan: Plan | undefined;
  problems: readonly Problem[];
  suggestions: readonly Suggestion[];
}

/** One line per record field: what feeds it, how it is finished, and the result for the sample. */
export function Mapping(props: MappingProps) {
  const { definition, destination, incoming } = props;
  const change = useDraft(({ change }) => change);
  const feeding = definition.writes
    .flatMap(({ fills, place }) => [
      ...fills.map(({ value }) => value),
      ...(place ? [place.pipeline, place.stage] : []),
    ])
    .flatMap(({ parts }) => parts.filter((part) => 'answer' in part));
  const unfed = incoming.filter(({ key }) => !feeding.some((part) => arrives(part, [key])));
  const [about, answers] = [unfed.filter(isAboutSending), unfed.filter((field) => !isAboutSending(field))];
  const missing = (['contact', 'company'] as const).filter(
    (record) => !definition.writes.some((write) => write.record === record),
  );
  const addWrite = (record: 'contact' | 'company') => {
    change((draft) => addedWrite(record, draft, incoming, destination));
  };
  return (
    <DragAnswers>
      <div className="flex flex-col gap-4">
        {definition.writes.map((write) => (
          <WriteTable key={write.as} write={write} {...props} />
        ))}
        <div className="flex flex-wrap items-center gap-2 pl-2.5">
          {missing.map((record) => (
            <Button key={record} onClick={() => addWrite(record)}>
              Write a {record} too
            </Button>
          ))}
        </div>
        {answers.length > 0 && <Unfed {...props} title="Unmapped fields:" fields={answers} />}
        {about.length > 0 && (
          <details className="pl-2.5 text-muted">
            <summary className="cursor-pointer">{counted(about.length, 'field')} about the sending itself</summary>
            <div className="mt-1.5 -ml-2.5">
              <Unfed {...props} title="Ids, times and names of forms:" fields={about} />
            </div>
          </details>
        )}
        {destination.fields.length === 0 && <p className="text-muted">The workspace has no fields.</p>}
      </div>
    </DragAnswers>
  );
}

/** Fields of the intake that feed nothing yet; each is dragged or pressed to feed a field of a record. */
function Unfed({
  title,
  fields,
  ...props
}: Pick<MappingProps, 'definition' | 'destination' | 'incoming' | 'sample'> & {
  title: string;
  fields: readonly ProfileFieldShape[];
}) {
  const { definition, destination, incoming, sample } = props;
  return (
    <p className="flex flex-wrap items-center gap-1.5 pl-2.5 text-muted">
      {title}
      {fields.slice(0, SHOWN).map((answer) => (
        <UseAnswer
          key={answer.key}
          answer={answer}
          sample={sample.get(answer.key)}
          definition={definition}
          incoming={incoming}
          destination={destination}
        />
      ))}
      {fields.length > SHOWN && `and ${fields.length - SHOWN} more`}
    </p>
  );
}

/** Fields that are shown; the others are counted. */
const SHOWN = 24;

const GRID =
  'grid grid-cols-[minmax(0,1fr)_28px] items-center gap-x-2 gap-y-0.5 px-2.5 md:grid-cols-[minmax(0,0.95fr)_minmax(0,1.6fr)_minmax(0,1.25fr)_minmax(0,1.2fr)_28px]';

function WriteTable({ write, ...props }: MappingProps & { write: Write }) {
  const { destination } = props;
  const change = useDraft(({ change }) => change);
  const required = requiredUnfed(write, destination);
  const remove = () =>
    change((draft) => ({
      ...draft,
      writes: draft.writes
        .filter(({ as }) => as !== write.as)
        .map((other) => (other.links ? { ...other, links: other.links.filter((link) => link !== write.as) } : other)),
    }));
  return (
    <section aria-label={`Fields of the ${write.record}`}>
      <div className={`${GRID} h-8 border-b border-line text-label font-semibold text-muted max-md:flex`}>
        <h3 className="font-(family-name:--font-text) text-label font-semibold tracking-normal first-letter:uppercase">
          {write.record} field
        </h3>
        <span className="max-md:hidden">Comes from</span>
        <span className="max-md:hidden">Finishers</span>
        <span className="max-md:hidden">This sample</span>
        <IconButton label={`Write no ${write.record} any more`} onClick={remove} className="ml-auto !size-7 text-muted">
          <Trash2 className="size-3.5" aria-hidden />
        </IconButton>
      </div>
      {required.map((field) => (
        <FillLine key={field} write={write} fill={{ field, value: { parts: [] } }} needed unfed {...props} />
      ))}
      {write.fills.map((fill) => (
        <FillLine
          key={fill.field}
          write={write}
          fill={fill}
          needed={destination.fields.some(
            (field) => field.record === write.record && field.key === fill.field && field.required,
          )}
          {...props}
        />
      ))}
      <Suggestions write={write} suggestions={props.suggestions} incoming={props.incoming} destination={destination} />
      <div className="flex flex-wrap items-center gap-x-4">
        <AddField write={write} destination={destination} hidden={required} />
        <WrittenWhen write={write} definition={props.definition} incoming={props.incoming} destination={destination} />
      </div>
    </section>
  );
}

function FillLine({
  write,
  fill,
  needed,
  unfed = false,
  destination,
  incoming,
  sample,
  plan,
  definition,
  problems,
}: MappingProps & { write: Write; fill: Fill; needed: boolean; unfed?: boolean }) {
  const field = destination.fields.find(
    (candidate) => candidate.record === write.record && candidate.key === fill.field,
  );
  const planned = plan?.writes.find(({ as }) => as === write.as);
  const trace = planned?.fields.find((candidate) => candidate.field === fill.field && candidate.trace);
  const at = `/writes/${definition.writes.indexOf(write)}/fills/${write.fills.indexOf(fill)}/`;
  const wrong = problems.find((problem) => problem.severity === 'error' && problem.at?.startsWith(at));
  const empty = fill.value.parts.length === 0;
  const { isOver, ...drop } = useAnswerDrop(write.as, fill.field);
  return (
    <div
      {...drop}
      className={`${GRID} min-h-[33px] border-b border-hair py-0.5 ${unfed || wrong || empty ? 'bg-brick-soft' : ''} ${isOver ? 'outline-2 -outline-offset-2 outline-straw' : ''}`}
    >
      <div className="flex min-w-0 items-center gap-2 max-md:order-1">
        <span className="truncate">{field?.label ?? fill.field}</span>
        {needed && (
          <span className="flex-none rounded-sm border border-line px-1 text-[11px] leading-4 text-muted">
            required
          </span>
        )}
      </div>
      <div className="max-md:order-3 max-md:col-span-2">
        <PartsCell
          value={fill.value}
          change={(value) => changeFill(write.as, fill.field, (known) => ({ ...known, value }))}
          earlier={definition.writes.slice(0, definition.writes.indexOf(write))}
          incoming={incoming}
          sample={sample}
          label={field?.label ?? fill.field}
        />
      </div>
      <div className="max-md:order-4 max-md:col-span-2">
        <FinishersCell
          write={write}
          fill={fill}
          field={field}
          incoming={incoming}
          trace={trace?.trace}
          label={field?.label ?? fill.field}
        />
      </div>
      <div className="min-w-0 truncate max-md:order-5 max-md:col-span-2" title={wrong?.text}>
        {wrong ? (
          <b className="font-semibold text-brick">{wrong.text}</b>
        ) : (
          <SampleResult trace={trace} field={field} unfed={unfed || empty} />
        )}
      </div>
      <div className="max-md:order-2">
        {!unfed && (
          <IconButton
            label={`Remove ${field?.label ?? fill.field}`}
            className="!size-7 text-muted"
            onClick={() => changeFill(write.as, fill.field, () => null)}
          >
            <Trash2 className="size-3.5" aria-hidden />
          </IconButton>
        )}
      </div>
    </div>
  );
}

/** What could not be read, as it was before the step that made it. */
function cameAs({ parts, steps }: ValueTrace): string {
  return steps.at(-1)?.after || steps.at(-1)?.before || parts.map(({ text }) => text).join(' ');
}

function SampleResult({
  trace,
  field,
  unfed,
}: {
  trace: Plan['writes'][number]['fields'][number] | undefined;
  field: Destination['fields'][number] | undefined;
  unfed: boolean;
}) {
  if (unfed) return <b className="font-semibold text-brick">nothing feeds it</b>;
  if (!trace) return <span className="text-faint">–</span>;
  if (trace.why === 'unreadable')
    return (
      <span className="text-brick">
        {trace.trace ? `“${shorten(cameAs(trace.trace), 40)}” does not fit` : 'does not fit'}
      </span>
    );
  const shown = trace.offered ?? trace.after;
  return (
    <>
      <Value value={shown} field={field} oneLine />
      {trace.did === 'keep' && trace.offered !== null && <span className="text-muted"> not written</span>}
    </>
  );
}
