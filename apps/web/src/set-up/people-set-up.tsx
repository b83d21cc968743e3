import type { PersonLinkShape, PersonShape } from '@haycart/api';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { useNavigate, useParams } from 'react-router';
import { call } from '../api/client';
import { peopleQuery, teamsQuery } from '../api/queries';
import { Button } from '../components/button';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { PasswordLink } from '../components/password-link';
import { Failed, Loading } from '../components/status';
import { TextField } from '../components/text-field';
import { PersonEditor } from './person-editor';
import { SetUpPage } from './set-up-page';
import { SideLink } from './side-link';

/** Who works here: where, when and in which languages, and how much is enough for them. */
export function PeopleSetUp() {
  const { key } = useParams();
  const people = useQuery(peopleQuery);
  const teams = useQuery(teamsQuery).data ?? [];
  const [making, setMaking] = useState(false);
  if (people.isPending) return <Loading />;
  if (people.isError) return <Failed error={people.error} retry={() => void people.refetch()} />;
  const chosen = people.data.find((one) => one.key === key) ?? people.data[0];
  const inTeams = ({ teams: own }: PersonShape) =>
    own.map((team) => teams.find((one) => one.key === team)?.name ?? team).join(', ') || 'in no team';
  return (
    <SetUpPage
      about="who looks after what arrives"
      action={
        <Button look="main" onClick={() => setMaking(true)}>
          <Plus className="size-4" aria-hidden /> New person
        </Button>
      }
      list="People"
      side={people.data.map((person) => (
        <SideLink key={person.key} to={`/set-up/people/${person.key}`} name={person.name} chosen={person === chosen}>
          {person.active ? inTeams(person) : 'not active'}
        </SideLink>
      ))}
    >
      {chosen && <PersonEditor key={chosen.key} person={chosen} teams={teams} />}
      {making && <NewPerson close={() => setMaking(false)} />}
    </SetUpPage>
  );
}

function NewPerson({ close }: { close: () => void }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const form = useForm({ defaultValues: { name: '', email: '' } });
  const make = useMutation({
    mutationFn: (person: { name: string; email: string }) =>
      call<PersonShape & { link: PersonLinkShape }>('POST', '/people', person),
    onSuccess: () => client.invalidateQueries({ queryKey: ['people'] }),
  });
  const { errors } = form.formState;
  const done = () => {
    if (make.data) void navigate(`/set-up/people/${make.data.key}`);
    close();
  };
  if (make.data)
    return (
      <Dialog open close={done} title={`${make.data.name} is added`}>
        <div className="flex flex-col gap-4">
          <PasswordLink link={make.data.link} name={make.data.name} />
          <div className="flex justify-end">
            <Button look="main" onClick={done}>
              Done
            </Button>
          </div>
        </div>
      </Dialog>
    );
  return (
    <Dialog
      open
      close={close}
      title="New person"
      description="They choose their own password by a link that you get next."
    >
      <form
        noValidate
        className="flex flex-col gap-4"
        onSubmit={(event) => void form.handleSubmit((person) => make.mutate(person))(event)}
      >
        <TextField
          label="Name"
          error={errors.name?.message}
          {...form.register('name', { validate: (name) => name.trim().length > 1 || 'Type their name.' })}
        />
        <TextField
          label="E-mail"
          type="email"
          error={errors.email?.message}
          {...form.register('email', {
            pattern: { value: /.@./, message: 'Type an e-mail address.' },
            required: 'Type an e-mail address.',
          })}
        />
        <DialogActions error={make.error} close={close} action="Add the person" disabled={make.isPending} />
      </form>
    </Dialog>
  );
}
