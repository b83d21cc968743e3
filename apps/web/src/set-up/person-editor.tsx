import type { PersonLinkShape, PersonShape, ProblemAt, TeamShape } from '@haycart/api';
import type { AwayDates, Person } from '@haycart/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { X } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { ApiError, call } from '../api/client';
import { Button, IconButton } from '../components/button';
import { Chip } from '../components/colour-mark';
import { FieldError } from '../components/field-error';
import { HoursField, TimeZoneField } from '../components/hours-field';
import { PasswordLink } from '../components/password-link';
import { Sheet } from '../components/sheet';
import { messageOf } from '../components/status';
import { TextField } from '../components/text-field';
import { HandOverDialog } from './hand-over-dialog';
import { numberOrNull } from './per-minute-field';
import { CopyKey } from '../components/copy-key';

const BOX = 'h-8 rounded border border-faint bg-raised px-2';

type Draft = Pick<Person, 'name' | 'timeZone' | 'hours' | 'away'> & {
  regions: string;
  languages: string;
  skills: string;
  capacity: string;
  perDay: string;
  phone: string;
};

/** One person: everything that choosing an owner may look at. */
export function PersonEditor({ person, teams }: { person: PersonShape; teams: readonly TeamShape[] }) {
  const client = useQueryClient();
  const [draft, setDraft] = useState<Draft>(() => draftOf(person));
  const put = (change: Partial<Draft>) => setDraft((before) => ({ ...before, ...change }));
  const save = useMutation({
    mutationFn: (change: object) => call<PersonShape>('PATCH', `/people/${person.key}`, change),
    onSuccess: async ({ name }) => {
      await client.invalidateQueries({ queryKey: ['people'] });
      toast(`${name} is saved.`);
    },
  });
  const [handingOver, setHandingOver] = useState(false);
  const link = useMutation({ mutationFn: () => call<PersonLinkShape>('POST', `/people/${person.key}/link`) });
  const wrong: ProblemAt[] = save.error instanceof ApiError ? (save.error.problem.errors ?? []) : [];
  const error = (at: string) => wrong.find((one) => one.at === at || one.at.startsWith(`${at}/`))?.message;
  return (
    <Sheet className="p-4">
      <form
        noValidate
        className="flex flex-col gap-5"
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate(changeOf(draft));
        }}
      >
        <header className="flex flex-wrap items-center gap-3">
          <h2 className="text-lg">{person.name}</h2>
          <CopyKey text={person.key} />
          <span className="text-muted">{person.email}</span>
          <Button className="ml-auto" onClick={() => setHandingOver(true)}>
            Hand over…
          </Button>
          <Button onClick={() => link.mutate()} disabled={link.isPending || !person.active}>
            New password link
          </Button>
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              className="size-4 accent-green"
              checked={person.active}
              onChange={({ target: { checked } }) =>
                save.mutate({ active: checked }, { onSuccess: () => setHandingOver(!checked) })
              }
            />
            active
          </label>
        </header>
        {link.data && (
          <div className="rounded border border-line bg-straw-soft p-3">
            <PasswordLink link={link.data} name={person.name} />
          </div>
        )}
        {link.isError && (
          <p role="alert" className="text-brick">
            {messageOf(link.error)}
          </p>
        )}
        {save.isError && !wrong.length && (
          <p role="alert" className="text-brick">
            {save.error.message}
          </p>
        )}
        <div className="grid gap-4 sm:grid-cols-2">
          <TextField
            label="Name"
            value={draft.name}
            error={error('/name')}
            onChange={({ target }) => put({ name: target.value })}
          />
          <TimeZoneField
            timeZone={draft.timeZone}
            error={error('/timeZone')}
            change={(timeZone) => put({ timeZone })}
          />
          <TextField
            label="Regions"
            placeholder="GB, IE"
            help="Country codes, with commas between."
            value={draft.regions}
            error={error('/regions')}
            onChange={({ target }) => put({ regions: target.value })}
          />
          <TextField
            label="Languages"
            placeholder="en, nl"
            help="Language codes, with commas between."
            value={draft.languages}
            error={error('/languages')}
            onChange={({ target }) => put({ languages: target.value })}
          />
          <TextField
            label="Knows"
            placeholder="heating, schools"
            help="What routes may ask for, with commas between."
            value={draft.skills}
            error={error('/skills')}
            onChange={({ target }) => put({ skills: target.value })}
          />
          <TextField
            label="Phone for text messages"
            inputMode="tel"
            placeholder="+442079460018"
            value={draft.phone}
            error={error('/phone')}
            onChange={({ target }) => put({ phone: target.value })}
          />
          <TextField
            label="Capacity"
            inputMode="numeric"
            placeholder="any number"
            help="How many open leads and deals are enough."
            value={draft.capacity}
            error={error('/capacity')}
            onChange={({ target }) => put({ capacity: target.value })}
          />
          <TextField
            label="A day at most"
            inputMode="numeric"
            placeholder="any number"
            help="How much of what comes on one day is enough."
            value={draft.perDay}
            error={error('/perDay')}
            onChange={({ target }) => put({ perDay: target.value })}
          />
          <div>
            <span className="font-semibold">Teams</span>
            <p className="mt-1 flex flex-wrap gap-1.5">
              {teams
                .filter(({ people }) => people.includes(person.key))
                .map(({ key, name }) => (
                  <Link key={key} to={`/set-up/teams/${key}`}>
                    <Chip name={name} />
                  </Link>
                ))}
              {!person.teams.length && <span className="text-muted">in no team</span>}
            </p>
          </div>
        </div>
        <div className="grid gap-5 lg:grid-cols-2">
          <HoursField
            legend="Working hours"
            without="Without any hours: at any time."
            hours={draft.hours}
            error={error('/hours')}
            change={(hours) => put({ hours })}
          />
          <Away away={draft.away} error={error('/away')} change={(away) => put({ away })} />
        </div>
        <div className="flex justify-end">
          <Button look="main" type="submit" disabled={save.isPending}>
            Save {person.name}
          </Button>
        </div>
      </form>
      {handingOver && <HandOverDialog person={person} teams={teams} close={() => setHandingOver(false)} />}
    </Sheet>
  );
}

function Away({
  away,
  error,
  change,
}: {
  away: readonly AwayDates[];
  error: string | undefined;
  change: (away: AwayDates[]) => void;
}) {
  const today = new Date().toISOString().slice(0, 10);
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">Away</legend>
      <ul className="flex flex-col gap-1">
        {away.map(({ from, to }, index) => (
          <li key={index} className="flex items-center gap-2">
            <input
              type="date"
              aria-label="First day away"
              className={BOX}
              value={from}
              onChange={({ target }) =>
                change(away.map((one, at) => (at === index ? { ...one, from: target.value } : one)))
              }
            />
            to
            <input
              type="date"
              aria-label="Last day away"
              className={BOX}
              value={to}
              onChange={({ target }) =>
                change(away.map((one, at) => (at === index ? { ...one, to: target.value } : one)))
              }
            />
            <IconButton label="Remove this absence" onClick={() => change(away.toSpliced(index, 1))}>
              <X className="size-4" aria-hidden />
            </IconButton>
          </li>
        ))}
      </ul>
      <FieldError error={error} />
      <Button className="mt-1" onClick={() => change([...away, { from: today, to: today }])}>
        Add an absence
      </Button>
    </fieldset>
  );
}

function draftOf(person: PersonShape): Draft {
  const { name, regions, languages, skills, timeZone, hours, phone, capacity, perDay, away } = person;
  return {
    name,
    timeZone,
    hours,
    away,
    regions: regions.join(', '),
    languages: languages.join(', '),
    skills: skills.join(', '),
    phone: phone ?? '',
    capacity: String(capacity ?? ''),
    perDay: String(perDay ?? ''),
  };
}

function changeOf({ regions, languages, skills, phone, capacity, perDay, ...rest }: Draft) {
  const codes = (text: string) =>
    text
      .split(/[,\s]+/)
      .map((code) => code.trim())
      .filter(Boolean);
  return {
    ...rest,
    regions: codes(regions.toUpperCase()),
    languages: codes(languages),
    skills: skills
      .split(',')
      .map((skill) => skill.trim())
      .filter(Boolean),
    phone: phone.replaceAll(' ', '') || null,
    capacity: numberOrNull(capacity),
    perDay: numberOrNull(perDay),
  };
}
