import type { FieldUse } from '@haycart/api';
import { counted, RECORD_KINDS, type RecordKind } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { useParams } from 'react-router';
import { fieldUsesQuery } from '../api/queries';
import { useWords } from '../api/words';
import { Button } from '../components/button';
import { Sheet } from '../components/sheet';
import { Failed, Loading } from '../components/status';
import { ColumnHeads, type ColumnHead } from './column-heads';
import { FIELD_GRID, FieldLine } from './field-line';
import { TYPE_WORDS } from '../components/field-words';
import { NewFields } from './new-fields';
import { SetUpPage } from './set-up-page';
import { SideLink } from './side-link';
import { useFieldChange } from '../components/use-field-change';

const COLUMNS: ColumnHead[] = [
  { name: 'Field', narrow: true },
  { name: 'Type' },
  { name: 'Needed', look: 'text-center', narrow: true },
  { name: 'Fed by' },
  { name: 'Filled', look: 'text-right' },
  { name: 'Last', look: 'text-right' },
  { name: 'Key', look: 'px-1.5' },
  { name: 'Change', silent: true, narrow: true },
];

/** Prepares what records hold: the fields of each kind, with what feeds them and how full they are. */
export function FieldsSetUp() {
  const { record: asked } = useParams();
  const record: RecordKind = RECORD_KINDS.find((kind) => kind === asked) ?? 'contact';
  const fields = useQuery(fieldUsesQuery);
  const [making, setMaking] = useState(false);
  if (fields.isPending) return <Loading />;
  if (fields.isError) return <Failed error={fields.error} retry={() => void fields.refetch()} />;
  const own = fields.data.filter((field) => field.record === record);
  const inUse = own.filter(({ retired }) => !retired);
  const retired = own.filter((field) => field.retired);
  const labels = inUse.map(({ label }) => label);
  const groups = [...new Set(inUse.flatMap(({ group }) => group || []))];
  return (
    <SetUpPage
      about="what a record holds, what feeds it, and how full it is"
      action={
        <Button look="main" onClick={() => setMaking(true)}>
          <Plus className="size-4" aria-hidden /> New fields
        </Button>
      }
      list="Kinds of record"
      side={RECORD_KINDS.map((kind) => (
        <KindLink key={kind} kind={kind} fields={fields.data} chosen={kind === record} />
      ))}
    >
      <Sheet>
        <div role="table" aria-label={`Fields of the ${record}`}>
          <ColumnHeads grid={FIELD_GRID} columns={COLUMNS} />
          {inUse.map((field) => (
            <FieldLine key={field.key} field={field} labels={labels} groups={groups} />
          ))}
        </div>
      </Sheet>
      {retired.length > 0 && (
        <Sheet className="px-4 py-3">
          <h2 className="mb-1 text-base">Out of use</h2>
          <ul>
            {retired.map((field) => (
              <RetiredField key={field.key} field={field} />
            ))}
          </ul>
        </Sheet>
      )}
      {making && <NewFields record={record} labels={labels} close={() => setMaking(false)} />}
    </SetUpPage>
  );
}

function KindLink({ kind, fields, chosen }: { kind: RecordKind; fields: readonly FieldUse[]; chosen: boolean }) {
  const words = useWords();
  const own = fields.filter(({ record, retired }) => record === kind && !retired);
  const empty = own.filter(({ records, filled, kept }) => records > 0 && filled === 0 && !kept).length;
  return (
    <SideLink to={`/set-up/fields/${kind}`} name={words.One(kind)} chosen={chosen}>
      {counted(own.length, 'field')}
      {empty > 0 && `, ${empty} empty`}
    </SideLink>
  );
}

function RetiredField({ field }: { field: FieldUse }) {
  const change = useFieldChange(field);
  return (
    <li className="flex items-center gap-3 border-b border-hair py-1.5 last:border-b-0">
      <span className="min-w-0 flex-1 truncate">
        {field.label} <span className="text-muted">{TYPE_WORDS[field.type]}</span>
      </span>
      <span className="flex-none text-small text-muted">{counted(field.filled, 'value')} kept</span>
      <Button disabled={change.isPending} onClick={() => change.mutate({ retired: false })}>
        Bring back
      </Button>
    </li>
  );
}
