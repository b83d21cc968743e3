import type { IntakeLine } from '@haycart/api';
import { counted } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import type { ColumnDef } from '@tanstack/react-table';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { intakeLinesQuery } from '../api/queries';
import { Button } from '../components/button';
import { DataTable } from '../components/data-table';
import { count } from '../components/format';
import { Mono, PageHead } from '../components/sheet';
import { Sparkline } from '../components/sparkline';
import { StateShape } from '../components/state-shape';
import { Empty, Failed, Loading } from '../components/status';
import { Time } from '../components/time';
import { NewEndpoint } from './new-endpoint';

const COLUMNS: ColumnDef<IntakeLine>[] = [
  {
    header: 'Intake',
    meta: { width: 'minmax(0,2fr)' },
    cell: ({ row: { original } }) => (
      <Link
        to={`/intakes/${original.key}`}
        className="font-semibold hover:underline"
        onClick={(event) => event.stopPropagation()}
      >
        {original.name}
      </Link>
    ),
  },
  { header: 'Kind', meta: { width: '90px' }, cell: ({ row: { original } }) => original.kind },
  {
    header: 'Key',
    meta: { width: 'minmax(0,1.2fr)', wide: true },
    cell: ({ row: { original } }) => <Mono>{original.key}</Mono>,
  },
  {
    header: 'Last 30 days',
    meta: { width: '144px', wide: true },
    cell: ({ row: { original } }) => (
      <Sparkline
        values={original.month}
        label={`${count(original.month.reduce((a, b) => a + b, 0))} in the last 30 days, ${original.month[29]} today`}
      />
    ),
  },
  {
    header: 'Submissions',
    meta: { width: '100px', numeric: true },
    cell: ({ row: { original } }) => count(original.submissions),
  },
  {
    header: 'Last',
    meta: { width: '90px', numeric: true },
    cell: ({ row: { original } }) =>
      original.lastAt ? <Time at={original.lastAt} /> : <span className="text-muted">never</span>,
  },
  {
    header: 'Feeds',
    meta: { width: 'minmax(0,1.6fr)', wide: true },
    cell: ({ row: { original } }) =>
      original.routes.length ? (
        original.routes.map(({ name, state }) => (state === 'paused' ? `${name} (paused)` : name)).join(', ')
      ) : (
        <span className="text-muted">no route takes from it</span>
      ),
  },
  {
    header: 'Health',
    meta: { width: 'minmax(0,1fr)', wide: true },
    cell: ({ row: { original } }) => <Health intake={original} />,
  },
];

/** Where submissions arrive: one line per intake. */
export function Intakes() {
  const intakes = useQuery(intakeLinesQuery);
  const [making, setMaking] = useState(false);
  const navigate = useNavigate();
  return (
    <div className="flex h-full flex-col p-5">
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
        <Button look="main" onClick={() => setMaking(true)}>
          <Plus className="size-4" aria-hidden /> New endpoint
        </Button>
      </PageHead>
      {intakes.isPending ? (
        <Loading />
      ) : intakes.isError ? (
        <Failed error={intakes.error} retry={() => void intakes.refetch()} />
      ) : (
        <DataTable
          label="Intakes"
          columns={COLUMNS}
          rows={intakes.data}
          open={({ key }) => void navigate(`/intakes/${key}`)}
          empty={
            <Empty title="Nothing can arrive yet">
              Make an endpoint: an address that another system or your web site posts its form submissions to.
            </Empty>
          }
        />
      )}
      <NewEndpoint open={making} close={() => setMaking(false)} />
    </div>
  );
}

function Health({ intake }: { intake: IntakeLine }) {
  if (intake.state === 'closed') return <span className="text-muted">closed</span>;
  if (intake.failed) {
    return (
      <Link
        to={`/submissions?intake=${intake.key}&outcome=failed`}
        onClick={(event) => event.stopPropagation()}
        className="flex items-center gap-2 hover:underline"
      >
        <StateShape state="failed" /> {intake.failed} failed
      </Link>
    );
  }
  return intake.submissions ? (
    <span className="flex items-center gap-2">
      <StateShape state="written" /> all written
    </span>
  ) : (
    <span className="text-muted">nothing arrived yet</span>
  );
}
