import { useQuery } from '@tanstack/react-query';
import { fairnessQuery, givenLatelyQuery, peopleQuery, teamsQuery } from '../api/queries';
import { ListFilter } from '../components/list-filter';
import { PageHead, Sheet } from '../components/sheet';
import { Empty, Failed, Loading } from '../components/status';
import { useAddress } from '../state/use-address';
import { GivenLately } from './given-lately';
import { TeamTable } from './team-table';

const DAYS: [string, string][] = [
  ['7', '7 days'],
  ['90', '90 days'],
  ['365', '365 days'],
];
const USUAL = 30;

/** Who got what, beside what everybody's shares would have been; and of the last, why. */
export function FairnessPage() {
  const [params, set] = useAddress();
  const asked = params.get('days');
  const days = DAYS.some(([key]) => key === asked) ? Number(asked) : USUAL;
  const team = params.get('team');
  const fairness = useQuery(fairnessQuery(days));
  const lately = useQuery(givenLatelyQuery(team));
  const people = useQuery(peopleQuery).data ?? [];
  const teams = useQuery(teamsQuery).data ?? [];
  if (fairness.isPending) return <Loading />;
  if (fairness.isError) return <Failed error={fairness.error} retry={() => void fairness.refetch()} />;
  const nameOf = (key: string) => people.find((one) => one.key === key)?.name ?? key;
  const teamName = (key: string | null) =>
    key === null ? 'By name' : (teams.find((one) => one.key === key)?.name ?? key);
  const shown = fairness.data.teams.filter((one) => team === null || one.team === team);
  return (
    <div className="h-full overflow-y-auto p-5 max-sm:p-3">
      <PageHead title="Who got what" aside={`in the last ${days} days`}>
        <ListFilter
          label="team"
          any="all"
          value={team ?? ''}
          options={teams.map(({ key, name }) => [key, name] as const)}
          choose={(value) => set('team', value)}
        />
        <ListFilter
          label="in the last"
          any={`${USUAL} days`}
          value={days === USUAL ? '' : String(days)}
          options={DAYS}
          choose={(value) => set('days', value)}
        />
      </PageHead>
      {shown.length === 0 ? (
        <Sheet>
          <Empty title="Nothing was given to anybody">
            Routes give what they write to people and teams: section <i>Write</i> of a route says to whom.
          </Empty>
        </Sheet>
      ) : (
        <div className="flex flex-col gap-4">
          {shown.map((one) => (
            <TeamTable key={one.team} name={teamName(one.team)} team={one} nameOf={nameOf} />
          ))}
          <GivenLately lines={lately.data ?? []} nameOf={nameOf} teamName={teamName} />
        </div>
      )}
    </div>
  );
}
