import type { PipelineShape, RecordLinkShape, RecordShape } from '@haycart/api';
import {
  canSortBy,
  pipelineOf,
  showFieldValue,
  stageOf,
  type FieldDefinition,
  type FieldValue,
  type ListView,
} from '@haycart/core';
import type { ColumnDef } from '@tanstack/react-table';
import { Link } from 'react-router';
import { PLURALS } from '../api/record-kinds';
import { AnswerClock } from '../components/answer-clock';
import { Chip, ColourMark } from '../components/colour-mark';
import { money, recordNumber, shortTime } from '../components/format';
import { Mono } from '../components/sheet';
import { Time } from '../components/time';

/** Linked records can stand in a column too, though they are no fields. */
export const LINKED = ['company', 'contacts', 'deals'] as const;
type Linked = (typeof LINKED)[number];

const WIDTHS: Partial<Record<FieldDefinition['type'], string>> = {
  'whole-number': '84px',
  decimal: '84px',
  money: '120px',
  date: '104px',
  'date-time': '104px',
  'yes-no': '72px',
  email: 'minmax(0,1.6fr)',
  phone: '148px',
  person: '124px',
};

interface ColumnSetting {
  fields: readonly FieldDefinition[];
  pipelines: readonly PipelineShape[];
  view: ListView;
  labels: Record<Linked, string>;
}

/** The columns of a list, in the order and with the widths of its view. */
export function recordColumns({ fields, pipelines, view, labels }: ColumnSetting): ColumnDef<RecordShape>[] {
  const narrow = new Set(view.columns.slice(0, 3).map(({ field }) => field));
  narrow.delete('number');
  return view.columns.flatMap(({ field: key, width }): ColumnDef<RecordShape>[] => {
    const field = fields.find((one) => one.key === key);
    const wide = !narrow.has(key);
    const own = width ? { width: `${width}px` } : {};
    if (LINKED.includes(key as Linked)) {
      const numeric = key !== 'company' && fields[0]?.record === 'company';
      return [
        {
          id: key,
          header: labels[key as Linked],
          meta: { width: numeric ? '80px' : 'minmax(0,1.2fr)', wide, numeric, ...own },
          cell: ({ row }) => <LinkedCell links={row.original.links[key]} counted={numeric} />,
        },
      ];
    }
    if (!field) return [];
    const numeric = NUMERIC.has(field.type) && field.key !== 'number';
    return [
      {
        id: key,
        header: field.key === 'number' ? 'No.' : field.label,
        meta: {
          width: widthOf(field),
          wide,
          numeric: numeric || field.key === 'updated_at' || field.key === 'created_at',
          ...(canSortBy(field) ? { sortBy: key } : {}),
          ...own,
        },
        cell: ({ row }) => <FieldCell record={row.original} field={field} pipelines={pipelines} />,
      },
    ];
  });
}

const NUMERIC: ReadonlySet<FieldDefinition['type']> = new Set([
  'whole-number',
  'decimal',
  'money',
  'date',
  'date-time',
]);

function widthOf({ key, type }: FieldDefinition): string {
  if (key === 'number') return '76px';
  if (key === 'updated_at' || key === 'created_at') return '96px';
  if (key === 'full_name' || key === 'name') return 'minmax(0,1.3fr)';
  if (key === 'pipeline' || key === 'stage') return '116px';
  if (key === 'country' || key === 'status') return '84px';
  return WIDTHS[type] ?? 'minmax(0,1.1fr)';
}

function FieldCell({
  record,
  field,
  pipelines,
}: {
  record: RecordShape;
  field: FieldDefinition;
  pipelines: readonly PipelineShape[];
}) {
  const { values } = record;
  if (field.key === 'number') return <Mono className="text-muted">{recordNumber(record.kind, record.number)}</Mono>;
  if (field.key === 'updated_at') return <Time at={record.updatedAt} />;
  if (field.key === 'created_at') return <Time at={record.createdAt} />;
  if (field.key === 'full_name' || field.key === 'name')
    return (
      <>
        {record.answer && <AnswerClock short due={record.answer.due} className="mr-1 align-[-2px]" />}
        <Link
          to={`/records/${PLURALS[record.kind]}/${record.id}`}
          onClick={(event) => event.stopPropagation()}
          className="font-semibold hover:underline"
        >
          {record.name}
        </Link>
      </>
    );
  const value = values[field.key];
  if (value === undefined) return null;
  if (field.key === 'pipeline' || field.key === 'stage') return placeName(values, field.key, pipelines);
  if (field.type === 'several-of' && field.options && Array.isArray(value)) return <Chips keys={value} field={field} />;
  if (typeof value === 'object' && 'currency' in value) return money(value);
  if (field.type === 'date-time') return shortTime(String(value));
  const colour = field.options?.find(({ key }) => key === value)?.colour;
  const text = showFieldValue(field, value);
  return colour ? (
    <span className="inline-flex items-center gap-1.5">
      <ColourMark colour={colour} /> {text}
    </span>
  ) : (
    text
  );
}

/** Where a deal or lead stands, by the names that its pipeline and stage have now. */
function placeName(values: Record<string, FieldValue>, of: 'pipeline' | 'stage', pipelines: readonly PipelineShape[]) {
  const pipeline = pipelineOf({ pipelines: [...pipelines] }, String(values.pipeline));
  const named = of === 'pipeline' ? pipeline : stageOf(pipeline, String(values.stage));
  return named?.name ?? String(values[of]);
}

function Chips({ keys, field }: { keys: readonly string[]; field: FieldDefinition }) {
  return (
    <span className="flex gap-1">
      {keys.map((key) => {
        const option = field.options?.find((one) => one.key === key);
        return <Chip key={key} name={option?.label ?? key} colour={option?.colour} />;
      })}
    </span>
  );
}

function LinkedCell({ links = [], counted }: { links: RecordLinkShape[] | undefined; counted: boolean }) {
  const [first] = links;
  if (counted) return <>{links.length || ''}</>;
  return (
    first && (
      <Link
        to={`/records/${PLURALS[first.kind]}/${first.id}`}
        onClick={(event) => event.stopPropagation()}
        className="hover:underline"
      >
        {first.name}
        {links.length > 1 && <span className="text-muted"> + {links.length - 1}</span>}
      </Link>
    )
  );
}
