import type { GivenLine } from '@haycart/api';
import { Link } from 'react-router';
import { PLURALS } from '../api/record-kinds';
import { Sheet } from '../components/sheet';
import { Time } from '../components/time';

/** What was given last, to whom, and why. */
export function GivenLately({
  lines,
  nameOf,
  teamName,
}: {
  lines: readonly GivenLine[];
  nameOf: (key: string) => string;
  teamName: (key: string | null) => string;
}) {
  if (!lines.length) return null;
  return (
    <Sheet>
      <section aria-label="The last twenty, and why">
        <h2 className="px-3.5 pt-3 pb-1.5 text-base">The last twenty, and why</h2>
        <ul>
          {lines.map(({ id, kind, record, name, person, team, why, at }) => (
            <li
              key={id}
              className="grid grid-cols-[84px_minmax(0,1fr)] items-baseline gap-x-3 border-t border-hair px-3.5 py-2 sm:grid-cols-[84px_minmax(0,2fr)_minmax(0,1fr)_minmax(0,3fr)]"
            >
              <Time at={at} className="text-small text-muted" />
              {name === null ? (
                <span className="text-muted">a record that is gone</span>
              ) : (
                <Link to={`/records/${PLURALS[kind]}/${record}`} className="truncate hover:underline">
                  {name}
                </Link>
              )}
              <b className="truncate font-semibold max-sm:col-start-2">{nameOf(person)}</b>
              <span className="text-muted max-sm:col-start-2" title={team === null ? undefined : teamName(team)}>
                {why}
              </span>
            </li>
          ))}
        </ul>
      </section>
    </Sheet>
  );
}
