import type { DoneEdit, HandOverPlan, PersonShape, TeamShape } from '@haycart/api';
import { counted } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '../api/client';
import { useRecordEdit } from '../api/edits';
import { peopleQuery } from '../api/queries';
import { useWords } from '../api/words';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { Loading, messageOf } from '../components/status';
import { SelectField } from '../components/text-field';

/** To whom something goes, as one choice: a person, a team in turn, or a team by what each has. */
interface Choice {
  key: string;
  wish: { person: string } | { team: string; by?: 'load' };
}

/** What somebody looks after goes to others: first who would get how much, then it is done. */
export function HandOverDialog({
  person,
  teams,
  close,
}: {
  person: PersonShape;
  teams: readonly TeamShape[];
  close: () => void;
}) {
  const people = (useQuery(peopleQuery).data ?? []).filter(({ active, key }) => active && key !== person.key);
  const ways = teams.flatMap(({ key, name }): (Choice & { name: string })[] => [
    { key: `turn ${key}`, name: `${name}, in turn`, wish: { team: key } },
    { key: `load ${key}`, name: `${name}, who has the least first`, wish: { team: key, by: 'load' } },
  ]);
  const persons = people.map(({ key, name }) => ({ key: `person ${key}`, name, wish: { person: key } }));
  // Whoever leaves has mostly worked with those of their team.
  const first = ways.find(({ wish }) => 'team' in wish && person.teams.includes(wish.team)) ?? ways[0] ?? persons[0];
  const [chosen, setChosen] = useState<string | undefined>(undefined);
  const choice = [...ways, ...persons].find(({ key }) => key === chosen) ?? first;
  const at = `/people/${person.key}/hand-over`;
  const plan = useQuery({
    queryKey: ['records', 'hand-over', person.key, choice?.key],
    queryFn: () => call<HandOverPlan>('POST', `${at}/rehearse`, choice!.wish),
    enabled: choice !== undefined,
  });
  const done = useRecordEdit((wish: Choice['wish']) => call<DoneEdit>('POST', at, wish), { quiet: true });
  const lines = plan.data?.people ?? [];
  const all = lines.reduce((sum, { leads, deals, tasks }) => sum + leads + deals + tasks, 0);
  return (
    <Dialog open close={close} title={`Give what ${person.name} looks after to others`}>
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          done.mutate(choice!.wish, { onSuccess: close });
        }}
      >
        <SelectField label="To" value={choice?.key ?? ''} onChange={({ target }) => setChosen(target.value)}>
          <optgroup label="A team">
            {ways.map(({ key, name }) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </optgroup>
          <optgroup label="One person">
            {persons.map(({ key, name }) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </optgroup>
        </SelectField>
        {plan.isError ? (
          <p role="alert" className="text-brick">
            {messageOf(plan.error)}
          </p>
        ) : plan.isPending ? (
          <Loading lines={3} />
        ) : all === 0 ? (
          <p>{person.name} looks after no open lead, deal or task.</p>
        ) : (
          <Lines lines={lines} nameOf={(key) => people.find((one) => one.key === key)?.name ?? key} />
        )}
        <p className="text-small text-muted">
          Open leads and deals, and open tasks. It can be taken back; the tasks stay with whoever has them then.
        </p>
        <DialogActions
          error={done.error}
          close={close}
          action={`Give ${counted(all, 'thing')} away`}
          disabled={all === 0 || plan.isFetching || done.isPending}
        />
      </form>
    </Dialog>
  );
}

function Lines({ lines, nameOf }: { lines: HandOverPlan['people']; nameOf: (key: string) => string }) {
  const words = useWords();
  return (
    <ul aria-label="Who gets what" className="max-h-[40vh] overflow-y-auto rounded border border-line">
      {lines.map(({ person, leads, deals, tasks }) => (
        <li
          key={person}
          className="flex min-h-9 items-center justify-between gap-4 border-b border-hair px-3 last:border-b-0"
        >
          <b className="truncate font-semibold">{person === null ? 'Stays, as nobody can take it' : nameOf(person)}</b>
          <span className="tabular text-muted">
            {[
              ...(deals ? [words.counted(deals, 'deal')] : []),
              ...(leads ? [words.counted(leads, 'lead')] : []),
              ...(tasks ? [counted(tasks, 'task')] : []),
            ].join(', ')}
          </span>
        </li>
      ))}
    </ul>
  );
}
