import type { FairnessLine, FairnessTeam } from '@haycart/api';
import { Link } from 'react-router';
import { count, percent, timeSpan } from '../components/format';
import { Sheet } from '../components/sheet';
import { Head, Heads } from '../components/heads';

const HEADS: readonly [string, string][] = [
  ['Received', 'w-[84px]'],
  ['Open now', 'w-[84px] max-sm:hidden'],
  ['First answer', 'w-[108px] max-sm:hidden'],
  ['In time', 'w-[108px] max-sm:hidden'],
  ['Won', 'w-[64px]'],
];

/** What each of a team got: how many, and by turns beside what everybody's shares would have given. */
export function TeamTable({
  name,
  team: { team, people },
  nameOf,
}: {
  name: string;
  team: FairnessTeam;
  nameOf: (key: string) => string;
}) {
  const received = people.reduce((sum, line) => sum + line.received, 0);
  const turns = people.reduce((sum, line) => sum + line.turns, 0);
  const widest = Math.max(1, ...people.flatMap((line) => [line.turns, line.intended]));
  return (
    <Sheet>
      <h2 className="flex items-baseline gap-2 px-3.5 pt-3 pb-1 text-base">
        {team === null ? (
          name
        ) : (
          <Link to={`/set-up/teams/${team}`} className="hover:underline">
            {name}
          </Link>
        )}
        <span className="text-small font-normal text-muted">
          {count(received)} received
          {turns > 0 && `, ${turns === received ? 'all' : count(turns)} by turns`}
        </span>
      </h2>
      <table className="w-full table-fixed border-collapse" aria-label={name}>
        <Heads>
          <Head>Person</Head>
          <Head look="w-[34%] max-lg:hidden">
            {turns > 0 ? 'By turns, beside the share meant' : <span className="sr-only">By turns</span>}
          </Head>
          {HEADS.map(([head, look]) => (
            <Head key={head} end look={look}>
              {head}
            </Head>
          ))}
        </Heads>
        <tbody>
          {people.map((line) => (
            <Line key={line.person} line={line} name={nameOf(line.person)} turns={turns} widest={widest} />
          ))}
        </tbody>
      </table>
    </Sheet>
  );
}

function Line({ line, name, turns, widest }: { line: FairnessLine; name: string; turns: number; widest: number }) {
  const { person, received, open, firstTouch, promised, inTime, won } = line;
  const owned = encodeURIComponent(JSON.stringify({ all: [{ of: { field: 'owner' }, test: 'is', value: person }] }));
  return (
    <tr className="h-9 border-b border-hair last:border-b-0">
      <th scope="row" className="truncate px-3.5 text-left font-semibold">
        {name}
      </th>
      <td className="pr-4 max-lg:hidden">{turns > 0 && <Share line={line} turns={turns} widest={widest} />}</td>
      <td className="tabular px-2 text-right">{count(received)}</td>
      <td className="tabular px-2 text-right max-sm:hidden">
        <Link to={`/records/deals?filter=${owned}`} className="hover:underline">
          {count(open)}
        </Link>
      </td>
      <td className="tabular px-2 text-right max-sm:hidden">
        {firstTouch === null ? <Nothing /> : timeSpan(firstTouch)}
      </td>
      <td className="tabular px-2 text-right max-sm:hidden">
        {promised ? (
          <span title={`${inTime} of ${promised}`} className={inTime / promised < 0.8 ? 'text-brick' : ''}>
            {percent(inTime / promised)}
          </span>
        ) : (
          <Nothing />
        )}
      </td>
      <td className="tabular px-2 pr-3.5 text-right">{count(won)}</td>
    </tr>
  );
}

/** What one got by turns as a bar, with a mark where their share would have ended. */
function Share({
  line: { turns: own, intended },
  turns,
  widest,
}: {
  line: FairnessLine;
  turns: number;
  widest: number;
}) {
  if (own === 0 && intended === 0) return <span className="text-small text-muted">out of turn</span>;
  return (
    <span className="grid grid-cols-[minmax(0,1fr)_118px] items-center gap-2">
      <span aria-hidden className="relative block h-3">
        <i className="absolute inset-y-0 left-0 block bg-green" style={{ width: `${(own / widest) * 100}%` }} />
        <i
          className="absolute -inset-y-1 block w-0.5 bg-ink"
          style={{ left: `calc(${(intended / widest) * 100}% - 1px)` }}
        />
      </span>
      <span className="tabular text-small text-muted">
        {count(own)} of {intended.toFixed(1)}, {percent(own / turns)}
      </span>
    </span>
  );
}

function Nothing() {
  return <span className="text-muted">none</span>;
}
