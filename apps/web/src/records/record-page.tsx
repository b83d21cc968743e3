import type { HistoryEntry, RecordShape, TouchShape } from '@haycart/api';
import { showFieldValue, type FieldDefinition } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { fieldsQuery, historyQuery, pipelinesQuery, recordQuery, touchesQuery } from '../api/queries';
import { exactTime, recordNumber } from '../components/format';
import { Mono, PageHead, Sheet } from '../components/sheet';
import { Failed, Loading } from '../components/status';
import { Time } from '../components/time';
import { Change } from '../components/value';
import { TraceOfValue } from './trace-of-value';

const PLURALS: Record<string, string> = { contact: 'contacts', company: 'companies', lead: 'leads', deal: 'deals' };

/** One record: its values at the left, each with its trace; what happened to it at the right. */
export function RecordPage() {
  const { kind = '', id = '' } = useParams();
  const record = useQuery(recordQuery(kind, id));
  const history = useQuery(historyQuery(kind, id));
  const touches = useQuery(touchesQuery(kind, id));
  const fields = useQuery(fieldsQuery);
  if (record.isError) return <Failed error={record.error} retry={() => void record.refetch()} />;
  if (record.isPending || fields.isPending) return <Loading />;
  const { data } = record;
  const own = (fields.data ?? []).filter((field) => field.record === data.kind);
  return (
    <div className="h-full overflow-y-auto p-5">
      <PageHead title={data.name} aside={<Mono>{recordNumber(data.kind, data.number)}</Mono>} />
      <div className="grid gap-5 lg:grid-cols-[minmax(0,5fr)_minmax(0,6fr)]">
        <div className="flex min-w-0 flex-col gap-5">
          <Values record={data} fields={own} history={history.data ?? []} />
          <Links record={data} />
          {touches.data && touches.data.length > 0 && <Touches touches={touches.data} />}
        </div>
        <History history={history.data} error={history.error} fields={own} />
      </div>
    </div>
  );
}

function Values({
  record,
  fields,
  history,
}: {
  record: RecordShape;
  fields: readonly FieldDefinition[];
  history: readonly HistoryEntry[];
}) {
  const [traced, setTraced] = useState<string | null>(null);
  const pipelines = useQuery(pipelinesQuery).data ?? [];
  const filled = fields.filter(({ key }) => record.values[key] !== undefined && !repeats(key, record.values));
  const blank = fields.filter(({ key, kept }) => record.values[key] === undefined && !kept);
  const show = (field: FieldDefinition) => {
    const value = record.values[field.key]!;
    const pipeline = pipelines.find(({ key }) => key === record.values.pipeline);
    if (field.key === 'pipeline') return pipeline?.name ?? String(value);
    if (field.key === 'stage') return pipeline?.stages.find(({ key }) => key === value)?.name ?? String(value);
    if (field.type === 'date-time') return exactTime(String(value));
    return showFieldValue(field, value);
  };
  return (
    <Sheet>
      <header className="flex items-baseline gap-2 border-b border-line px-4 py-2.5">
        <h2 className="text-base">Values</h2>
        <span className="text-small text-muted">choose one to see where it came from</span>
      </header>
      <ul>
        {filled.map((field) => (
          <li key={field.key} className="border-b border-hair last:border-b-0">
            <button
              type="button"
              aria-expanded={traced === field.key}
              onClick={() => setTraced(traced === field.key ? null : field.key)}
              className={`grid w-full grid-cols-[minmax(0,140px)_minmax(0,1fr)] gap-3 px-4 py-1.5 text-left hover:bg-raised ${traced === field.key ? 'bg-straw-soft shadow-[inset_4px_0_0_var(--color-straw)]' : ''}`}
            >
              <span className="text-muted">{field.label}</span>
              <span className="[overflow-wrap:anywhere] whitespace-pre-line">{show(field)}</span>
            </button>
            {traced === field.key && <TraceOfValue field={field} history={history} />}
          </li>
        ))}
      </ul>
      {blank.length > 0 && (
        <p className="border-t border-line px-4 py-2 text-small text-muted">
          Blank: {blank.map(({ label }) => label).join(', ')}
        </p>
      )}
    </Sheet>
  );
}

/** A list of one says nothing that the field beside it does not say. */
function repeats(key: string, values: RecordShape['values']): boolean {
  const value = values[key];
  return (key === 'emails' || key === 'phones') && Array.isArray(value) && value.length < 2;
}

function Links({ record }: { record: RecordShape }) {
  const groups = Object.entries(record.links).filter(([key]) => key !== 'company');
  if (!groups.length) return null;
  return (
    <Sheet className="px-4 py-3">
      <h2 className="mb-1 text-base">Linked</h2>
      <ul>
        {groups.flatMap(([, links]) =>
          links.map(({ id, kind, number, name }) => (
            <li key={id} className="flex items-baseline gap-3 border-b border-hair py-1 last:border-b-0">
              <span className="w-[72px] flex-none text-small text-muted capitalize">{kind}</span>
              <Link
                to={`/records/${PLURALS[kind]}/${id}`}
                className="min-w-0 flex-1 truncate text-slate hover:underline"
              >
                {name}
              </Link>
              <Mono className="text-muted">{recordNumber(kind, number)}</Mono>
            </li>
          )),
        )}
      </ul>
    </Sheet>
  );
}

function Touches({ touches }: { touches: readonly TouchShape[] }) {
  return (
    <Sheet className="px-4 py-3">
      <h2 className="mb-1 text-base">Where they came from</h2>
      <ol>
        {touches.map((touch, index) => (
          <li
            key={index}
            className="grid grid-cols-[72px_minmax(0,1fr)_auto] items-baseline gap-3 border-b border-hair py-1 last:border-b-0"
          >
            <span className="text-small text-muted">{index === 0 ? 'first' : 'later'}</span>
            <span className="min-w-0 truncate" title={touch.page ?? undefined}>
              <b className="font-semibold">{touch.source}</b>{' '}
              <span className="text-muted">
                {[touch.channel, touch.medium, touch.campaign].filter(Boolean).join(', ')}
              </span>
            </span>
            <Time at={touch.at} className="text-muted" />
          </li>
        ))}
      </ol>
    </Sheet>
  );
}

function History({
  history,
  error,
  fields,
}: {
  history: readonly HistoryEntry[] | undefined;
  error: unknown;
  fields: readonly FieldDefinition[];
}) {
  return (
    <Sheet className="self-start">
      <h2 className="border-b border-line px-4 py-2.5 text-base">History</h2>
      {error ? (
        <Failed error={error} />
      ) : !history ? (
        <Loading />
      ) : (
        <ol className="px-4">
          {history.map((entry) => (
            <Entry key={entry.id} entry={entry} fields={fields} />
          ))}
        </ol>
      )}
    </Sheet>
  );
}

function Entry({
  entry: { at, cause, values, diff },
  fields,
}: {
  entry: HistoryEntry;
  fields: readonly FieldDefinition[];
}) {
  const created = Object.keys(diff.created).length > 0;
  const order = (wanted: string) => fields.findIndex(({ key }) => key === wanted);
  const shown = values
    .filter(
      ({ field, after }) => fields[order(field)]?.type !== 'date-time' && !repeats(field, { [field]: after ?? '' }),
    )
    .sort((a, b) => order(a.field) - order(b.field));
  const what = created ? 'Created' : shown.length ? 'Changed' : 'Linked';
  return (
    <li className="border-b border-hair py-2.5 last:border-b-0">
      <p className="flex items-baseline gap-2">
        <span className="min-w-0 flex-1">
          <b className="font-semibold">{what}</b> by{' '}
          {cause.submission ? (
            <Link to={`/submissions?open=${cause.submission}`} className="text-slate hover:underline">
              the route {cause.label}
            </Link>
          ) : (
            cause.label || 'somebody'
          )}
        </span>
        <Time at={at} relative className="flex-none text-small text-muted" />
      </p>
      {shown.length > 0 && (
        <dl className="mt-1 grid grid-cols-[minmax(0,110px)_minmax(0,1fr)] gap-x-3 text-[13px]">
          {shown.map(({ field, label, before, after }) => {
            const definition = fields.find(({ key }) => key === field);
            return (
              <div key={field} className="contents">
                <dt className="text-muted">{label}</dt>
                <dd className="min-w-0">
                  <Change
                    before={created ? undefined : showFieldValue(definition, before)}
                    after={showFieldValue(definition, after)}
                  />
                </dd>
              </div>
            );
          })}
        </dl>
      )}
    </li>
  );
}
