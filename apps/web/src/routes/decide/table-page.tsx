import { counted, readTableCsv, tableCsv, usesOfTable, withTableRenamed, type TableAround } from '@haycart/core';
import { Download, Upload } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link, Navigate, useNavigate, useParams } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../../components/button';
import { CheckPanel } from '../../components/decision-table/check-panel';
import type { CellAt } from '../../components/decision-table/selection';
import { TableGrid } from '../../components/decision-table/table-grid';
import { useCheck } from '../../components/decision-table/use-check';
import { FileButton } from '../../components/file-button';
import { saveAs } from '../../components/save-as';
import { Key, PageHead } from '../../components/sheet';
import { messageOf } from '../../components/status';
import { SelectField } from '../../components/text-field';
import { UndoButtons } from '../../components/undo-buttons';
import { useAddress } from '../../state/use-address';
import { useDraft } from '../draft';
import { useOpenedRoute } from '../route-pages';
import { useRehearsal } from '../use-rehearsal';
import { PastFigures } from './past-figures';
import { InputSettings, NewInput } from './input-settings';
import { NewOutput, OutputSettings } from './output-settings';
import { SampleDecided } from './sample-decided';
import { useSuggestedTexts } from './suggested-texts';
import { TableName } from './table-name';
import { usePastFigures } from './use-past-figures';
import { useNeverCame } from './use-never-came';
import { useTableEdit } from './use-table-edit';

/** The page on which one decision table is edited, with its check at the right. */
export function TablePage() {
  const { table: name = '' } = useParams();
  const { definition, route } = useOpenedRoute();
  const at = definition.decisions?.findIndex((table) => table.name === name) ?? -1;
  if (at === -1) return <Navigate to={`/routes/${route.id}?section=place`} replace />;
  return <OneTable key={route.id} at={at} />;
}

function OneTable({ at }: { at: number }) {
  const { definition, route, saving, error, destination, intakes } = useOpenedRoute();
  const table = definition.decisions![at]!;
  const history = useDraft();
  const navigate = useNavigate();
  const edit = useTableEdit(table.name);
  const earlier = definition.decisions!;
  const around = useMemo(
    (): TableAround => ({ destination, writes: writesOf(definition.writes), tables: earlier.slice(0, at) }),
    [destination, definition.writes, earlier, at],
  );
  const surroundings = useMemo(
    () => ({ destination, intakes: intakes.map(({ key, name }) => ({ key, name })) }),
    [destination, intakes],
  );
  const { check, checking } = useCheck(table, around);
  const neverCame = useNeverCame(table, around);
  const { plan, choice } = useRehearsal(definition, surroundings);
  const past = usePastFigures(route.id, table);
  const [params, set] = useAddress();
  const showOne = (sample: string) => set('sample', sample);
  const decided = plan?.decided?.find((one) => one.table === table.name);
  const [shown, setShown] = useState<CellAt | null>(() => rowAsked(params.get('row'), table.rows.length));
  const suggested = useSuggestedTexts(table, around);
  const uses = usesOfTable(definition, table.name);
  const rename = (to: string) => {
    history.change((draft) => withTableRenamed(draft, table.name, to));
    void navigate(`/routes/${route.id}/decide/${encodeURIComponent(to)}`, { replace: true });
  };
  return (
    <div className="flex h-full max-lg:block max-lg:overflow-y-auto">
      <div className="flex min-h-0 min-w-0 flex-1 flex-col p-5 max-lg:h-[85vh]">
        <p className="text-small text-muted">
          <Link to="/routes" className="hover:underline">
            Routes
          </Link>{' '}
          ·{' '}
          <Link to={`/routes/${route.id}?section=place`} className="hover:underline">
            {definition.name || 'Without a name'}
          </Link>{' '}
          · 5 Decide
        </p>
        <PageHead title={<TableName name={table.name} taken={earlier.map(({ name }) => name)} rename={rename} />}>
          <UndoButtons history={history} />
          <CsvButtons around={around} name={table.name} />
        </PageHead>
        <p className="-mt-1 mb-3 flex flex-wrap items-center gap-x-3 gap-y-1 text-muted">
          <SelectField
            label="How many rows may fit"
            hideLabel
            className="!w-auto"
            value={table.fits ?? 'first'}
            onChange={({ target }) =>
              edit(({ fits: _, ...now }) => (target.value === 'one' ? { ...now, fits: 'one' as const } : now))
            }
          >
            <option value="first">The first row that fits decides</option>
            <option value="one">Exactly one row may fit</option>
          </SelectField>
          <span>{counted(table.rows.length, 'row')}</span>
          <span>
            {uses ? `used ${uses === 1 ? 'once' : `${uses} times`} in the route` : 'not used in the route yet'}
          </span>
          <span role="status" className={saving === 'failed' ? 'text-brick' : ''}>
            {saving === 'failed'
              ? `Not saved: ${messageOf(error)}`
              : saving === 'saving'
                ? 'Saving the draft …'
                : 'The draft is saved'}
          </span>
        </p>
        <TableGrid
          table={table}
          around={around}
          check={check}
          suggested={suggested}
          settings={{
            input: (column) => <InputSettings table={table} at={column} around={around} edit={edit} />,
            output: (column) => <OutputSettings table={table} at={column} around={around} />,
            add: (
              <div className="grid gap-4 sm:grid-cols-2">
                <NewInput table={table} around={around} edit={edit} />
                <NewOutput table={table} edit={edit} />
              </div>
            ),
          }}
          counts={past.counts}
          showOne={showOne}
          sampleRow={decided?.row ?? null}
          goTo={shown}
          edit={edit}
          undo={history.undo}
          redo={history.redo}
        />
        <p className="mt-3 flex flex-none flex-wrap items-center gap-x-3 gap-y-1 text-small text-muted">
          <span>
            <Key>Enter</Key> type
          </span>
          <span>
            <Key>Tab</Key> next cell
          </span>
          <span>
            <Key>Ctrl V</Key> paste rows from a sheet
          </span>
          <span>
            <Key>Ctrl D</Key> fill down
          </span>
          <span>
            <Key>Ctrl Enter</Key> new row
          </span>
          <span>
            <Key>Ctrl Shift K</Key> copy the row
          </span>
          <span>
            <Key>Ctrl ⌫</Key> remove the row
          </span>
          <span>
            <Key>Alt ↑ ↓</Key> move the row
          </span>
          {past.counts && (
            <span>
              <Key>Alt Enter</Key> what the row took
            </span>
          )}
        </p>
      </div>
      <CheckPanel
        table={table}
        around={around}
        check={check}
        checking={checking}
        edit={edit}
        goTo={(cell) => setShown({ ...cell })}
        neverCame={neverCame}
      >
        <PastFigures table={table} {...past} showOne={showOne} />
        <SampleDecided table={table} around={around} decided={decided} choice={choice} />
      </CheckPanel>
    </div>
  );
}

function writesOf(writes: ReturnType<typeof useOpenedRoute>['definition']['writes']): TableAround['writes'] {
  return writes.map(({ as, record }) => ({ as, record }));
}

/** The row that the address names, from 1. */
function rowAsked(row: string | null, rows: number): CellAt | null {
  const at = Number(row) - 1;
  return row !== null && Number.isInteger(at) && at >= 0 && at < rows ? { row: at, column: 0 } : null;
}

/** The table as a file, and from one. */
function CsvButtons({ around, name }: { around: TableAround; name: string }) {
  const { definition } = useOpenedRoute();
  const table = definition.decisions!.find((one) => one.name === name)!;
  const edit = useTableEdit(name);
  const take = () => {
    const file = `${name.toLowerCase().replace(/[^a-z0-9]+/g, '-') || 'table'}.csv`;
    saveAs(file, 'text/csv', tableCsv(table, around));
  };
  const bring = async (chosen: File) => {
    const read = readTableCsv(await chosen.text(), table, around);
    if (!read.ok) return void toast.error(read.text);
    edit(() => read.table);
    toast(`${counted(read.table.rows.length, 'row')} came from ${chosen.name}. Undo brings the old ones back.`, {
      description: read.notes.join(' '),
    });
  };
  return (
    <>
      <FileButton label="Rows from a CSV file" accept=".csv,text/csv" choose={(chosen) => void bring(chosen)}>
        <Upload className="size-4" aria-hidden />
        From CSV
      </FileButton>
      <Button onClick={take}>
        <Download className="size-4" aria-hidden />
        As CSV
      </Button>
    </>
  );
}
