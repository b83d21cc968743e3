import type { ComparisonShape } from '@haycart/api';
import type { DecisionTable } from '@haycart/core';
import { Button } from '../../components/button';
import { DifferenceGroups } from '../../components/difference-groups';
import { count } from '../../components/format';
import { StateShape } from '../../components/state-shape';
import { CountedSubmissions } from '../../components/decision-table/counted-submissions';
import { useLocation } from 'react-router';

/** What the latest submissions show of a table: those that no row takes, and what it says otherwise than what runs. */
export function PastFigures({
  table,
  found,
  isStale,
  begin,
  cancel,
  showOne,
}: {
  table: DecisionTable;
  found: ComparisonShape | undefined;
  /** Whether the table was changed since. */
  isStale: boolean;
  begin: () => void;
  cancel: () => void;
  showOne: (submission: string) => void;
}) {
  const { pathname } = useLocation();
  const figures = found?.tables.find((one) => one.table === table.name);
  const differing = found?.groups.filter(({ kind }) => kind === `decided ${table.name}`) ?? [];
  const working = found?.state === 'working';
  return (
    <section aria-label="Past submissions" className="py-3">
      <div className="flex items-center gap-3">
        <h3 className="text-[14px] font-semibold">The last 1,000 submissions</h3>
        <Button className="ml-auto !h-7" onClick={working ? cancel : begin}>
          {working ? 'Cancel' : found ? 'Count again' : 'Count them'}
        </Button>
      </div>
      {!found && <p className="mt-1 text-muted">How many each row takes, and what would change. Nothing is written.</p>}
      {working && (
        <p role="status" className="mt-1 text-muted tabular-nums">
          {count(found.looked)} of {count(found.total)} looked at
        </p>
      )}
      {found && figures && !working && (
        <>
          {isStale && <p className="mt-1 text-muted">Counted before your last change.</p>}
          <p className="mt-2 flex items-center gap-2 font-semibold">
            <StateShape state={figures.none.count ? 'held' : 'written'} />
            {figures.none.count
              ? `No row fits: ${count(figures.none.count)} of ${count(found.looked)}`
              : `Each of ${count(found.looked)} has its row`}
          </p>
          {figures.none.count > 0 && (
            <CountedSubmissions
              figure={figures.none}
              label="What no row took"
              text="Show them"
              className="text-slate underline-offset-2 hover:underline"
              show={showOne}
            />
          )}
          {found.before && (
            <>
              <p className="mt-2 flex items-center gap-2 font-semibold">
                <StateShape state={differing.length ? 'skipped' : 'written'} />
                {differing[0]
                  ? `Against ${found.before.name}: ${count(differing[0].count)} would go elsewhere`
                  : `Against ${found.before.name}: none would go elsewhere`}
              </p>
              <DifferenceGroups groups={differing} sampleAt={(submission) => `${pathname}?sample=${submission}`} />
            </>
          )}
        </>
      )}
    </section>
  );
}
