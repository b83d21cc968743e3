import type { IdentityReport } from '@haycart/api';
import { counted, listInWords, percent, RULE_WORDS, type MatchRule } from '@haycart/core';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { PLURALS } from '../api/record-kinds';
import { latestMondays } from '../components/days';
import { shortDay } from '../components/format';
import { Sheet } from '../components/sheet';
import { Time } from '../components/time';

const NAMED: Readonly<Record<string, string>> = {
  none: 'nothing: new',
  'open-lead': 'open lead',
  'open-deal': 'open deal',
  person: 'a person said so',
};

function Card({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Sheet className="flex flex-col gap-1.5 p-4">
      <h2 className="text-base">{title}</h2>
      {children}
    </Sheet>
  );
}

/** One line of a small table: a name, a bar as long as its share, and its number. */
function BarLine({ name, times, most, note }: { name: string; times: number; most: number; note?: string }) {
  return (
    <li className="grid grid-cols-[minmax(0,150px)_minmax(0,1fr)_auto] items-center gap-2.5 border-b border-hair py-1 last:border-0">
      <span className="truncate" title={name}>
        {name}
      </span>
      <span className="h-3">
        <i className="block h-full bg-green" style={{ width: `${(times / Math.max(1, most)) * 100}%` }} />
      </span>
      <span className="min-w-10 text-right tabular-nums text-muted">
        {times.toLocaleString('en-GB')}
        {note}
      </span>
    </li>
  );
}

/** By which rule routes recognised whom. */
export function RulesCard({ rules, asked }: Pick<IdentityReport, 'rules' | 'asked'>) {
  const most = Math.max(...rules.map(({ times }) => times), 1);
  return (
    <Card title="Recognised by, last 30 days">
      <ul>
        {rules.map(({ by, times }) => (
          <BarLine key={by} name={NAMED[by] ?? RULE_WORDS[by as MatchRule['by']] ?? by} times={times} most={most} />
        ))}
      </ul>
      {!rules.length && <p className="text-muted">No route wrote one.</p>}
      <p className="text-small text-muted">{counted(asked, 'question')} put to people in that time.</p>
    </Card>
  );
}

/** Weeks that the server tells of, and of how many one is labelled. */
const WEEKS = 12;
const LABELLED = 3;

const dayOf = (monday: string) => shortDay(`${monday}T12:00`);

function inWords(byWeek: ReadonlyMap<string, number>): string {
  const told = [...byWeek]
    .filter(([, found]) => found > 0)
    .map(([week, found]) => `${found} in the week of ${dayOf(week)}`);
  return `Duplicates by week: ${listInWords(told)}`;
}

/** How many duplicates came, week by week, and through which intake. */
export function WeeksCard({ weeks }: Pick<IdentityReport, 'weeks'>) {
  const byWeek = new Map(latestMondays(new Date(), WEEKS).map((monday) => [monday, 0]));
  const byIntake = new Map<string, number>();
  for (const { week, intake, found } of weeks) {
    byWeek.set(week, (byWeek.get(week) ?? 0) + found);
    byIntake.set(intake ?? 'by hand', (byIntake.get(intake ?? 'by hand') ?? 0) + found);
  }
  const most = Math.max(...byWeek.values(), 1);
  return (
    <Card title="Duplicates, week by week">
      {weeks.length ? (
        <>
          <div className="flex items-end" role="img" aria-label={inWords(byWeek)}>
            {[...byWeek].map(([week, found], index) => (
              <span
                key={week}
                className="flex min-w-0 flex-1 flex-col items-center"
                title={`${found} in the week of ${dayOf(week)}`}
              >
                {found > 0 && <span className="text-small tabular-nums text-muted">{found}</span>}
                <i className="block w-4/5 max-w-9 bg-straw" style={{ height: `${(found / most) * 70}px` }} />
                <span className="h-5 w-full whitespace-nowrap border-t border-ink pt-0.5 text-center text-small text-muted">
                  {index % LABELLED === 0 && dayOf(week)}
                </span>
              </span>
            ))}
          </div>
          <ul>
            {[...byIntake]
              .toSorted(([, a], [, b]) => b - a)
              .map(([intake, found]) => (
                <BarLine key={intake} name={intake} times={found} most={Math.max(...byIntake.values())} />
              ))}
          </ul>
        </>
      ) : (
        <p className="text-muted">None came in the last twelve weeks.</p>
      )}
    </Card>
  );
}

/** How people decided against the score: of those said to be 90 % the same, about 90 % should have been. */
export function CalibrationCard({ calibration }: Pick<IdentityReport, 'calibration'>) {
  return (
    <Card title="The score beside what people decided">
      {calibration.length ? (
        <ul>
          {calibration.map(({ from, decided, same }) => (
            <li
              key={from}
              className="grid grid-cols-[92px_minmax(0,1fr)_auto] items-center gap-2.5 border-b border-hair py-1 last:border-0"
            >
              <span className="tabular-nums">
                {Math.round(from * 100)} – {Math.round((from + 0.1) * 100)} %
              </span>
              <span className="relative h-3 bg-hair">
                <i
                  className="absolute inset-y-0 left-0 block bg-green"
                  style={{ width: `${(same / decided) * 100}%` }}
                />
                <i className="absolute -inset-y-1 block w-[2px] bg-ink" style={{ left: `${(from + 0.05) * 100}%` }} />
              </span>
              <span className="text-right tabular-nums text-muted">
                {same} of {decided} the same
              </span>
            </li>
          ))}
        </ul>
      ) : (
        <p className="text-muted">No pair was decided yet. Decisions improve the scores.</p>
      )}
      <p className="text-small text-muted">The stroke is what the score said; the bar is what people found.</p>
    </Card>
  );
}

/** Merges that look doubtful by now, and the latest ones. */
export function MergesCard({ suspected, merges, kind }: Pick<IdentityReport, 'suspected' | 'merges' | 'kind'>) {
  const lines = [
    ...suspected.map((merge) => ({ ...merge, doubt: `only ${percent(merge.now ?? 0)} alike by what is known now` })),
    ...merges.filter(({ id }) => !suspected.some((one) => one.id === id)).map((merge) => ({ ...merge, doubt: '' })),
  ];
  return (
    <Card title={suspected.length ? `Merges, ${suspected.length} of them doubtful` : 'Latest merges'}>
      <ul>
        {lines.slice(0, 12).map(({ id, survivor, absorbed, at, by, undone, doubt }) => (
          <li key={id} className="flex items-center gap-3 border-b border-hair py-1 last:border-0">
            <span className="min-w-0 flex-1 truncate">
              {absorbed.name} into{' '}
              {survivor ? (
                <Link to={`/records/${PLURALS[kind]}/${survivor.id}`} className="text-slate hover:underline">
                  {survivor.name}
                </Link>
              ) : (
                'a record that is gone'
              )}
            </span>
            <span className={`text-small ${doubt ? 'text-brick' : 'text-muted'}`}>
              {undone ? `undone by ${undone.by}` : doubt || `by ${by}`}
            </span>
            <Time at={at} className="flex-none text-muted" />
          </li>
        ))}
      </ul>
      {!lines.length && <p className="text-muted">Nothing was merged yet.</p>}
    </Card>
  );
}
