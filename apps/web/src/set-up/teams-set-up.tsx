import type { PersonShape, TeamShape } from '@haycart/api';
import { counted, type AnswerPromise } from '@haycart/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { toast } from 'sonner';
import { call } from '../api/client';
import { peopleQuery, teamsQuery } from '../api/queries';
import { Button } from '../components/button';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { sayDone } from '../components/say-done';
import { Sheet } from '../components/sheet';
import { Empty, Failed, Loading, messageOf } from '../components/status';
import { TextField } from '../components/text-field';
import { CopyKey } from '../components/copy-key';
import { PromiseField } from './promise-field';
import { SavedField } from './saved-field';
import { SetUpPage } from './set-up-page';
import { SideLink } from './side-link';

/** Teams, and who is in them. */
export function TeamsSetUp() {
  const { key } = useParams();
  const teams = useQuery(teamsQuery);
  const people = useQuery(peopleQuery).data ?? [];
  const [making, setMaking] = useState(false);
  if (teams.isPending) return <Loading />;
  if (teams.isError) return <Failed error={teams.error} retry={() => void teams.refetch()} />;
  const chosen = teams.data.find((one) => one.key === key) ?? teams.data[0];
  return (
    <SetUpPage
      about="who works together"
      action={
        <Button look="main" onClick={() => setMaking(true)}>
          <Plus className="size-4" aria-hidden /> New team
        </Button>
      }
      list="Teams"
      side={teams.data.map((team) => (
        <SideLink key={team.key} to={`/set-up/teams/${team.key}`} name={team.name} chosen={team === chosen}>
          {counted(team.people.length, 'person', 'people')}
        </SideLink>
      ))}
    >
      {chosen ? (
        <TeamEditor
          key={chosen.key}
          team={chosen}
          others={teams.data.filter((one) => one !== chosen)}
          people={people}
        />
      ) : (
        <Sheet>
          <Empty title="There is no team yet">
            Records go to people; teams are how conditions and filters name them together.
          </Empty>
        </Sheet>
      )}
      {making && <NewTeam close={() => setMaking(false)} />}
    </SetUpPage>
  );
}

function TeamEditor({
  team,
  others,
  people,
}: {
  team: TeamShape;
  others: readonly TeamShape[];
  people: readonly PersonShape[];
}) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const done = () => client.invalidateQueries({ queryKey: ['people'] });
  const settled = { onSuccess: done, onError: (error: unknown) => toast.error(messageOf(error)) };
  const change = useMutation({
    scope: { id: `team ${team.key}` },
    mutationFn: (wish: { name?: string; people?: string[]; promise?: AnswerPromise | null }) =>
      call('PATCH', `/teams/${team.key}`, wish),
    ...settled,
  });
  const remove = useMutation({
    mutationFn: () => call('DELETE', `/teams/${team.key}`),
    ...settled,
    onSuccess: async () => {
      await done();
      await navigate('/set-up/teams');
      sayDone(`${team.name} is gone; its people stay.`, {
        label: 'Bring back',
        act: () => void call('POST', '/teams', { name: team.name, people: team.people }).then(done),
      });
    },
  });
  // What was just chosen stands until the server has answered.
  const chosen = (change.isPending && change.variables.people) || team.people;
  const taken = (name: string) => others.some((one) => one.name.toLowerCase() === name.trim().toLowerCase());
  return (
    <Sheet className="p-4">
      <header className="mb-3 flex flex-wrap items-center gap-3">
        <div className="-ml-2 w-64 max-sm:w-full">
          <SavedField
            label="Name of the team"
            value={team.name}
            className="font-heading text-lg font-semibold"
            check={(name) =>
              name.trim() === '' ? 'A team needs a name.' : taken(name) ? 'There is one of that name.' : null
            }
            save={(name) => change.mutate({ name })}
          />
        </div>
        <CopyKey text={team.key} />
        <Link to={`/fairness?team=${team.key}`} className="ml-auto text-slate hover:underline">
          Who got what
        </Link>
        <Button look="danger" disabled={remove.isPending} onClick={() => remove.mutate()}>
          Remove the team
        </Button>
      </header>
      <PromiseField
        promise={(change.isPending && change.variables.promise) || team.promise}
        change={(promise) => change.mutate({ promise })}
      />
      <ul className="mt-3 grid gap-x-6 sm:grid-cols-2">
        {people
          .filter(({ active, key }) => active || team.people.includes(key))
          .map(({ key, name, regions, languages }) => (
            <li key={key} className="border-b border-hair">
              <label className="flex h-9 cursor-pointer items-center gap-2.5">
                <input
                  type="checkbox"
                  className="size-4 accent-green"
                  checked={chosen.includes(key)}
                  onChange={({ target }) =>
                    change.mutate({
                      people: target.checked ? [...chosen, key] : chosen.filter((one) => one !== key),
                    })
                  }
                />
                <span className="min-w-0 flex-1 truncate">{name}</span>
                <span className="text-small text-muted">{[...regions, ...languages].join(' ')}</span>
              </label>
            </li>
          ))}
      </ul>
    </Sheet>
  );
}

function NewTeam({ close }: { close: () => void }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [name, setName] = useState('');
  const make = useMutation({
    mutationFn: () => call<TeamShape>('POST', '/teams', { name }),
    onSuccess: async ({ key }) => {
      await client.invalidateQueries({ queryKey: ['people'] });
      close();
      await navigate(`/set-up/teams/${key}`);
    },
  });
  return (
    <Dialog open close={close} title="New team">
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          make.mutate();
        }}
      >
        <TextField label="Name" autoFocus value={name} onChange={({ target }) => setName(target.value)} />
        <DialogActions
          error={make.error}
          close={close}
          action="Make the team"
          disabled={!name.trim() || make.isPending}
        />
      </form>
    </Dialog>
  );
}
