import { fieldOf, namedOwner, type Destination, type NamedOwner, type OwnerRule, type RecordKind } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { teamsQuery } from '../api/queries';
import { SelectField } from './text-field';

const ENTERED = 'entered';

/** Who looks after what a route writes: nobody yet, one person, somebody of a team, or the colleague who entered it. */
export function OwnerChoice({
  label = 'Owner',
  hideLabel = false,
  nobody = 'nobody yet',
  record,
  owner,
  destination,
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
  change: (owner: OwnerRule | undefined) => void;
}) {
  const teams = useQuery(teamsQuery).data ?? [];
  const people = fieldOf(destination, record, 'owner')?.options?.filter(({ retired }) => !retired) ?? [];
  const named = (
    <>
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
    <>
      <SelectField
        label={label}
        hideLabel={hideLabel}
        value={entered ? ENTERED : textOf(owner && namedOwner(owner))}
        onChange={({ target }) =>
          change(target.value === ENTERED ? { enteredBy: true } : (ownerIn(target.value) ?? undefined))
        }
      >
        <option value="">{nobody}</option>
        <option value={ENTERED}>the colleague who enters it</option>
        {named}
      </SelectField>
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
    </>
  );
}

function textOf(named: NamedOwner | null | undefined): string {
  if (!named) return '';
  return 'person' in named ? `person ${named.person}` : `team ${named.team}`;
}

function ownerIn(text: string): NamedOwner | null {
  const [kind, key = ''] = text.split(' ');
  return kind === 'person' ? { person: key } : kind === 'team' ? { team: key } : null;
}
