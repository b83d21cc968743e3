import { fieldOf, type Destination, type RecordKind } from '@haycart/core';
import { ChooseSeveral } from './field-input';
import { NewMark } from './new-mark';

/** Tags of any record, or lists of a contact; new ones can be made on the spot. */
export function MarksChoice({
  destination,
  record,
  field: key,
  label,
  chosen = [],
  change,
}: {
  destination: Destination;
  record: RecordKind;
  field: 'tags' | 'lists';
  label: string;
  chosen: string[] | undefined;
  change: (chosen: string[] | undefined) => void;
}) {
  const field = fieldOf(destination, record, key);
  if (!field) return null;
  const known = field.options ?? [];
  return (
    <div>
      <span className="mb-1 block font-semibold">{label}</span>
      {known.length > 0 && (
        <ChooseSeveral
          field={field}
          chosen={chosen}
          label={label}
          change={(next) => change(next?.length ? next : undefined)}
        />
      )}
      <NewMark kind={key} known={known.length} made={(made) => change([...chosen, made])} />
    </div>
  );
}
