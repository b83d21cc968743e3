import type { IntakeDay } from '@haycart/api';
import { Link } from 'react-router';
import { count } from '../components/format';
import { Sheet } from '../components/sheet';
import { StateShape } from '../components/state-shape';
import { Empty } from '../components/status';

const OUTCOMES = ['written', 'held', 'skipped', 'failed'] as const;
const COLOURS: Record<(typeof OUTCOMES)[number], string> = {
  written: 'bg-green',
  held: 'bg-straw',
  skipped: 'bg-faint',
  failed: 'bg-(--color-brick)',
};
const HEADS: Record<(typeof OUTCOMES)[number], string> = {
  written: 'Written',
  held: 'Held',
  skipped: 'Skipped',
  failed: 'Failed',
};

/** What arrived at each intake in the last 24 hours, and what became of it. */
export function IntakeTable({ intakes }: { intakes: readonly IntakeDay[] }) {
  const most = Math.max(1, ...intakes.map(({ received }) => received));
  return (
    <Sheet>
      <h2 className="px-3.5 pt-3 pb-1 text-base">By intake, last 24 hours</h2>
      {intakes.length ? (
        <table className="w-full table-fixed border-collapse">
          <thead>
            <tr className="border-b border-line text-label text-muted">
              <th scope="col" className="px-3.5 py-2 text-left font-semibold">
                Intake
              </th>
              <th scope="col" className="w-[30%] max-lg:hidden">
                <span className="sr-only">Share</span>
              </th>
              <th scope="col" className="w-[84px] px-2 py-2 text-right font-semibold">
                Received
              </th>
              {OUTCOMES.map((outcome) => (
                <th
                  key={outcome}
                  scope="col"
                  className={`w-[44px] px-2 py-2 text-right font-semibold last:pr-3.5 sm:w-[92px] ${outcome === 'skipped' ? 'max-sm:hidden' : ''}`}
                >
                  <span className="inline-flex items-center gap-1.5">
                    <StateShape state={outcome} />
                    <span className="max-sm:sr-only">{HEADS[outcome]}</span>
                  </span>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {intakes.map((intake) => (
              <Row key={intake.key} intake={intake} most={most} />
            ))}
          </tbody>
        </table>
      ) : (
        <Empty title="Nothing arrived in the last 24 hours">
          Give a form’s link to somebody, or{' '}
          <Link className="text-slate underline" to="/intakes">
            connect an endpoint
          </Link>{' '}
          and post to it.
        </Empty>
      )}
    </Sheet>
  );
}

function Row({ intake, most }: { intake: IntakeDay; most: number }) {
  const all = `/submissions?intake=${intake.key}`;
  return (
    <tr className="h-9 border-b border-hair last:border-b-0">
      <th scope="row" className="px-3.5 text-left font-semibold">
        <Link to={`/intakes/${intake.key}`} className="block truncate hover:underline">
          {intake.name}
        </Link>
      </th>
      <td className="max-lg:hidden">
        <span aria-hidden className="flex h-3" style={{ width: `${(intake.received / most) * 100}%` }}>
          {OUTCOMES.map((outcome) => (
            <span key={outcome} className={COLOURS[outcome]} style={{ flexGrow: intake[outcome] }} />
          ))}
        </span>
      </td>
      <td className="tabular px-2 text-right">
        <Link to={all} className="hover:underline">
          {count(intake.received)}
        </Link>
      </td>
      {OUTCOMES.map((outcome) => (
        <td
          key={outcome}
          className={`tabular px-2 text-right last:pr-3.5 ${outcome === 'skipped' ? 'max-sm:hidden' : ''} ${intake[outcome] ? '' : 'text-muted'}`}
        >
          {intake[outcome] ? (
            <Link to={`${all}&outcome=${outcome}`} className="hover:underline">
              {count(intake[outcome])}
            </Link>
          ) : (
            0
          )}
        </td>
      ))}
    </tr>
  );
}
