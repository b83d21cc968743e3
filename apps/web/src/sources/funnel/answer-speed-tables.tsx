import type { AnswerSpeedRow } from '@haycart/api';
import { useQuery } from '@tanstack/react-query';
import { answerSpeedQuery, type SourcesWish } from '../../api/queries';
import { count, percent, timeSpan } from '../../components/format';
import { Sheet } from '../../components/sheet';
import { Head, Heads } from '../../components/heads';
import { channelWord } from '../channel-word';

/** How fast what was given to people was answered, by channel and by team. */
export function AnswerSpeedTables({ wish }: { wish: SourcesWish }) {
  const speed = useQuery(answerSpeedQuery(wish)).data;
  if (!speed?.total.given) return null;
  const { channels, teams, total } = speed;
  return (
    <Sheet className="overflow-x-auto">
      <h2 className="px-3.5 pt-2.5 text-base leading-7">How fast it was answered</h2>
      <table className="w-full border-collapse" aria-label="How fast it was answered">
        <Heads>
          <Head>Channel, team</Head>
          <Head end>Given to somebody</Head>
          <Head end>Answered</Head>
          <Head end>Answered after</Head>
          <Head end>At work</Head>
          <Head end>In time</Head>
        </Heads>
        <tbody>
          {channels.map((row) => (
            <SpeedRow key={`channel ${row.name}`} row={row} name={channelWord(row.name)} />
          ))}
          {teams.map((row, index) => (
            <SpeedRow key={`team ${row.name}`} row={row} name={row.name} isFirst={index === 0} />
          ))}
        </tbody>
        <tfoot className="border-t border-line font-semibold">
          <SpeedRow row={total} name="All" />
        </tfoot>
      </table>
      <p className="px-3.5 py-2 text-small text-muted">
        A channel is what somebody came by last. Answered after: by the clock, the one in the middle. At work: the same
        in the working hours of whoever got it. In time: of those with a promise that were answered or are due.
      </p>
    </Sheet>
  );
}

function SpeedRow({ row, name, isFirst }: { row: AnswerSpeedRow; name: string; isFirst?: boolean }) {
  const { given, answered, minutes, workMinutes, promised, inTime } = row;
  const cell = 'tabular px-2 text-right whitespace-nowrap last:pr-3.5';
  return (
    <tr className={`h-9 border-b border-hair last:border-b-0 ${isFirst ? 'border-t-2 border-t-line' : ''}`}>
      <th scope="row" className="px-3.5 text-left font-semibold">
        {name}
      </th>
      <td className={cell}>{count(given)}</td>
      <td className={cell}>{count(answered)}</td>
      <td className={cell}>{spanOf(minutes)}</td>
      <td className={cell}>{spanOf(workMinutes)}</td>
      <td className={cell}>
        {promised ? (
          <>
            <span className="mr-2 font-normal text-muted">
              {count(inTime)} of {count(promised)}
            </span>
            {percent(inTime / promised)}
          </>
        ) : (
          <span className="text-faint">–</span>
        )}
      </td>
    </tr>
  );
}

function spanOf(minutes: number | null) {
  if (minutes === null) return <span className="text-faint">–</span>;
  return minutes === 0 ? 'at once' : timeSpan(minutes * 60);
}
