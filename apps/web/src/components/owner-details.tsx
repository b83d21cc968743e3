import {
  fieldOf,
  MOST_SHARE,
  type CountedWork,
  type Destination,
  type NamedOwner,
  type RecordKind,
  type TeamOwner,
} from '@haycart/core';
import { Fragment } from 'react';
import { languageName } from './language-name';
import { SelectField } from './text-field';

const TICKS = [
  ['atWork', 'Only who is at work, or begins first'],
  ['capacity', 'Nobody who has as many as are enough'],
  ['perDay', 'Nobody who got enough for the day'],
  ['notTwice', 'Never the same twice in a row'],
] as const;
const KEEPS = [
  ['contact', 'Whoever looks after the contact already comes first'],
  ['company', 'Whoever looks after the company already comes first'],
] as const;

/** Who stands in for a person, or how a team shares what comes. */
export function OwnerDetails({
  record,
  owner,
  destination,
  change,
}: {
  record: RecordKind;
  owner: NamedOwner;
  destination: Destination;
  change: (owner: NamedOwner) => void;
}) {
  const people = fieldOf(destination, record, 'owner')?.options?.filter(({ retired }) => !retired) ?? [];
  const choose = (words: string, none: string, value: string | undefined, put: (key: string | undefined) => void) => (
    <SelectField
      label={`${words}, of the ${record}`}
      hideLabel
      value={value ?? ''}
      onChange={({ target }) => put(target.value || undefined)}
    >
      <option value="">{none}</option>
      {people.map(({ key, label: name }) => (
        <option key={key} value={key}>
          {words}: {name}
        </option>
      ))}
    </SelectField>
  );
  if ('person' in owner) {
    const { standIn, ...person } = owner;
    return choose('while away', 'nobody while they are away', standIn, (key) =>
      change(key ? { ...person, standIn: key } : person),
    );
  }
  const { otherwise, ...team } = owner;
  return (
    <div className="mt-1.5 flex flex-col gap-1 text-small">
      {KEEPS.map(([kind, words]) => (
        <Tick
          key={kind}
          words={words}
          ticked={owner.keep?.includes(kind) ?? false}
          change={(ticked) => change(withKeep(owner, kind, ticked))}
        />
      ))}
      <label className="flex flex-wrap items-center gap-x-2">
        Next is
        <select
          aria-label={`Who is next, of the ${record}`}
          className="h-7 min-w-0 rounded border border-faint bg-raised px-1.5"
          value={owner.by ?? ''}
          onChange={({ target }) => {
            const { by: _, ...rest } = owner;
            change(target.value ? { ...rest, by: target.value as CountedWork } : rest);
          }}
        >
          <option value="">whose turn it is</option>
          <option value="load">who has the fewest open leads and deals</option>
          <option value="tasks">who has the fewest open tasks</option>
          <option value="worth">with the lowest value of open deals</option>
        </select>
      </label>
      {TICKS.map(([part, words]) => (
        <Tick
          key={part}
          words={words}
          ticked={owner[part] ?? false}
          change={(ticked) => {
            const { [part]: _, ...rest } = owner;
            change(ticked ? { ...rest, [part]: true } : rest);
          }}
        />
      ))}
      <AskedFor owner={owner} record={record} destination={destination} change={change} />
      <SharesFields owner={owner} people={people} destination={destination} change={change} />
      {choose('when nobody can', 'nobody when all are away', otherwise, (key) =>
        change(key ? { ...team, otherwise: key } : team),
      )}
    </div>
  );
}

/** What whoever gets it must speak and know, of what anybody of the team does. */
function AskedFor({
  owner,
  record,
  destination,
  change,
}: {
  owner: TeamOwner;
  record: RecordKind;
  destination: Destination;
  change: (owner: TeamOwner) => void;
}) {
  const members = (destination.teams?.[owner.team]?.people ?? []).map((key) => destination.people?.[key]);
  const { speaks, skills = [], ...rest } = owner;
  const all = (own: readonly string[], asked: readonly string[]) => [...new Set([...own, ...asked])].sort();
  const languages = all(
    members.flatMap((one) => one?.languages ?? []),
    speaks === undefined ? [] : [speaks],
  );
  const known = all(
    members.flatMap((one) => one?.skills ?? []),
    skills,
  );
  const asking = (next: Pick<TeamOwner, 'speaks' | 'skills'>) =>
    change({
      ...rest,
      ...(next.speaks ? { speaks: next.speaks } : {}),
      ...(next.skills?.length ? { skills: next.skills } : {}),
    });
  return (
    <>
      {languages.length > 0 && (
        <label className="flex flex-wrap items-center gap-x-2">
          Who speaks
          <select
            aria-label={`What they speak, of the ${record}`}
            className="h-7 rounded border border-faint bg-raised px-1.5"
            value={speaks ?? ''}
            onChange={({ target }) => asking({ speaks: target.value, skills })}
          >
            <option value="">any language</option>
            {languages.map((one) => (
              <option key={one} value={one}>
                {languageName(one)}
              </option>
            ))}
          </select>
        </label>
      )}
      {known.map((skill) => (
        <Tick
          key={skill}
          words={`Who knows ${skill}`}
          ticked={skills.includes(skill)}
          change={(ticked) =>
            asking({ speaks, skills: ticked ? [...skills, skill] : skills.filter((one) => one !== skill) })
          }
        />
      ))}
    </>
  );
}

/** How many shares each of the team has, folded away while all have the same. */
function SharesFields({
  owner,
  people,
  destination,
  change,
}: {
  owner: TeamOwner;
  people: readonly { key: string; label: string }[];
  destination: Destination;
  change: (owner: TeamOwner) => void;
}) {
  const { shares = {}, ...rest } = owner;
  const members = destination.teams?.[owner.team]?.people ?? [];
  const put = (key: string, share: number) => {
    const next = Object.fromEntries(
      Object.entries({ ...shares, [key]: Math.min(MOST_SHARE, share) }).filter(([, one]) => one !== 1),
    );
    change(Object.keys(next).length ? { ...rest, shares: next } : rest);
  };
  return (
    <details open={Object.keys(shares).length > 0 || undefined}>
      <summary className="cursor-pointer">Shares</summary>
      <div className="mt-1 grid grid-cols-[minmax(0,1fr)_56px] items-center gap-x-2 gap-y-1">
        {members.map((key) => {
          const name = people.find((one) => one.key === key)?.label ?? key;
          return (
            <Fragment key={key}>
              <span className="truncate">{name}</span>
              <input
                aria-label={`Shares of ${name}`}
                inputMode="numeric"
                className="h-7 rounded border border-faint bg-raised px-2 text-right tabular-nums"
                value={shares[key] ?? 1}
                onChange={({ target }) => put(key, Number(target.value.replace(/\D/g, '').slice(-3)))}
              />
            </Fragment>
          );
        })}
      </div>
    </details>
  );
}

function withKeep({ keep = [], ...team }: TeamOwner, kind: 'contact' | 'company', ticked: boolean): TeamOwner {
  const kept = ticked ? [...keep, kind] : keep.filter((one) => one !== kind);
  return kept.length ? { ...team, keep: kept } : team;
}

function Tick({ words, ticked, change }: { words: string; ticked: boolean; change: (ticked: boolean) => void }) {
  return (
    <label className="flex items-center gap-2">
      <input
        type="checkbox"
        className="size-3.5 flex-none accent-green"
        checked={ticked}
        onChange={({ target }) => change(target.checked)}
      />
      {words}
    </label>
  );
}
