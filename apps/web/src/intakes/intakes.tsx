import { counted, INTAKE_KINDS, type IntakeKind } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { FileUp, Plus } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { formMonthsQuery, intakeLinesQuery } from '../api/queries';
import { Button } from '../components/button';
import { ColumnsMenu } from '../components/columns-menu';
import { DataTable } from '../components/data-table';
import { PageHead } from '../components/sheet';
import { Empty, Failed, Loading } from '../components/status';
import { TextField } from '../components/text-field';
import { FIRST_COLUMNS, INTAKE_COLUMNS, intakeColumns, isIntakeColumn } from './intake-columns';
import { shownLines, type IntakeSort } from './intake-lines';
import { BringFile } from './bring-file';
import { NewForm } from './new-form';
import { NewIntake } from './new-intake';
import { useAddress } from '../state/use-address';

const MADE_BY_NAME = INTAKE_KINDS.filter(({ isMadeByName }) => isMadeByName);

/** Where submissions arrive: one line per intake. */
export function Intakes() {
  const intakes = useQuery(intakeLinesQuery);
  const months = useQuery(formMonthsQuery).data ?? [];
  const [params, set] = useAddress();
  const find = params.get('q') ?? '';
  const archived = params.get('archived') === 'yes';
  const chosen = (params.get('columns') ?? '').split(',').filter(isIntakeColumn);
  const columns = chosen.length ? chosen : [...FIRST_COLUMNS];
  const [field, way] = (params.get('sort') ?? '').split(' ') as [IntakeSort, string?];
  const sort = field ? { field, down: way === 'down' } : null;
  const lines = shownLines(intakes.data ?? [], months, { find, archived, sort });
  const hidden = (intakes.data ?? []).filter((one) => one.archived).length;
  const [making, setMaking] = useState<IntakeKind | 'form' | 'sheet' | null>(null);
  const navigate = useNavigate();
  return (
    <div className="flex h-full flex-col overflow-y-auto p-5">
      <PageHead
        title="Intakes"
        aside={
          intakes.data &&
          `${counted(intakes.data.length, 'intake')}, ${counted(
            intakes.data.reduce((sum, { month }) => sum + month[29]!, 0),
            'submission',
          )} today`
        }
      >
        <div className="w-44">
          <TextField
            label="Find intakes"
            hideLabel
            type="search"
            placeholder="Name or key"
            value={find}
            onChange={({ target }) => set('q', target.value)}
          />
        </div>
        {hidden > 0 && (
          <Button aria-pressed={archived} onClick={() => set('archived', archived ? null : 'yes')}>
            {archived ? 'Without the archived' : `With ${hidden} archived`}
          </Button>
        )}
        <ColumnsMenu
          className=""
          columns={columns.map((column) => ({ field: column }))}
          choices={Object.entries(INTAKE_COLUMNS).map(([key, label]) => ({ key, label }))}
          change={(next) => set('columns', next.map((one) => one.field).join(','))}
        />
        <Button onClick={() => setMaking('sheet')}>
          <FileUp className="size-4" aria-hidden /> Import file
        </Button>
        {MADE_BY_NAME.map((kind) => (
          <Button key={kind.kind} onClick={() => setMaking(kind)}>
            <Plus className="size-4" aria-hidden /> New {kind.label}
          </Button>
        ))}
        <Button look="main" onClick={() => setMaking('form')}>
          <Plus className="size-4" aria-hidden /> New form
        </Button>
      </PageHead>
      {intakes.isPending ? (
        <Loading />
      ) : intakes.isError ? (
        <Failed error={intakes.error} retry={() => void intakes.refetch()} />
      ) : (
        <DataTable
          label="Intakes"
          columns={intakeColumns(columns)}
          rows={lines}
          sort={{
            field: field ?? '',
            down: way === 'down',
            choose: (next) => set('sort', field !== next ? next : way === 'down' ? null : `${next} down`),
          }}
          open={({ key }) => void navigate(`/intakes/${key}`)}
          empty={
            find ? (
              <Empty title="No intake has this name">Try a part of its name, or of its key.</Empty>
            ) : (
              <Empty title="Nothing can arrive yet">
                Make a form, or an endpoint: an address that another system or your web site posts its form submissions
                to.
              </Empty>
            )
          }
        />
      )}
      {typeof making === 'object' && making && <NewIntake kind={making} close={() => setMaking(null)} />}
      {making === 'form' && <NewForm close={() => setMaking(null)} />}
      {making === 'sheet' && <BringFile close={() => setMaking(null)} />}
    </div>
  );
}
