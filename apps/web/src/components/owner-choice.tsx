import {
  fieldOf,
  namedOwner,
  type DecidedOwner,
  type DecisionTable,
  type Destination,
  type NamedOwner,
  type OwnerRule,
  type RecordKind,
} from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { teamsQuery } from '../api/queries';
import { OwnerDetails } from './owner-details';
import { SelectField } from './text-field';

const ENTERED = 'entered';
/** The types of output that name somebody. */
const NAMING: ReadonlySet<string> = new Set(['owner', 'person', 'team']);

/** Who looks after what a route writes: nobody yet, one person, somebody of a team, or the colleague who entered it. */
export function OwnerChoice({
  label = 'Owner',
  hideLabel = false,
  nobody = 'nobody yet',
  record,
  owner,
  destination,
  tables = [],
  change,
}: {
  label?: string;
  /** Shown only to screen readers where the surroundings say it already. */
  hideLabel?: boolean;
  /** What choosing nobody is called. */
  nobody?: string;
  record: RecordKind;
  owner: OwnerRule | undefined;
  destination: Destination;
  /** The tables that may say who it is. */
  tables?: readonly DecisionTable[] | undefined;
  change: (owner: OwnerRule | undefined) => void;
}) {
  const teams = useQuery(teamsQuery).data ?? [];
  const people = fieldOf(destination, record, 'owner')?.options?.filter(({ retired }) => !retired) ?? [];
  const decided = tables.flatMap(({ name, outputs }) =>
    outputs.filter(({ type }) => NAMING.has(type)).map((output) => ({ decision: name, output: output.name })),
  );
  const named = (
    <>
      {decided.length > 0 && (
        <optgroup label="Whom a table names">
          {decided.map((one) => (
            <option key={textOf(one)} value={textOf(one)}>
              {one.decision}: {one.output}
            </option>
          ))}
        </optgroup>
      )}
      <optgroup label="Somebody of a team, in equal shares">
        {teams.map(({ key, name }) => (
          <option key={key} value={`team ${key}`}>
            {name}
          </option>
        ))}
      </optgroup>
      <optgroup label="One person">
        {people.map(({ key, label: name }) => (
          <option key={key} value={`person ${key}`}>
            {name}
          </option>
        ))}
      </optgroup>
    </>
  );
  const entered = owner && 'enteredBy' in owner;
  return (
    <div className="flex min-w-0 flex-col gap-1.5">
      <SelectField
        label={label}
        hideLabel={hideLabel}
        value={entered ? ENTERED : textOf(owner)}
        onChange={({ target }) =>
          change(target.value === ENTERED ? { enteredBy: true } : (ownerIn(target.value) ?? undefined))
        }
      >
        <option value="">{nobody}</option>
        <option value={ENTERED}>the colleague who enters it</option>
        {named}
      </SelectField>
      {owner && !entered && namedOwner(owner) && (
        <OwnerDetails record={record} owner={namedOwner(owner)!} destination={destination} change={change} />
      )}
      {entered && (
        <SelectField
          label="Owner of what no colleague entered"
          value={textOf(owner.otherwise)}
          onChange={({ target }) => {
            const otherwise = ownerIn(target.value);
            change({ enteredBy: true, ...(otherwise ? { otherwise } : {}) });
          }}
        >
          <option value="">nobody yet</option>
          {named}
        </SelectField>
      )}
    </div>
  );
}

function textOf(named: NamedOwner | DecidedOwner | null | undefined): string {
  if (!named) return '';
  if ('decision' in named) return JSON.stringify([named.decision, named.output]);
  return 'person' in named ? `person ${named.person}` : `team ${named.team}`;
}

function ownerIn(text: string): NamedOwner | DecidedOwner | null {
  if (text.startsWith('[')) {
    const [decision, output] = JSON.parse(text) as [string, string];
    return { decision, output };
  }
  const [kind, key = ''] = text.split(' ');
  return kind === 'person' ? { person: key } : kind === 'team' ? { team: key } : null;
}
