import { canGroupBy, showFieldValue, type FieldDefinition, type RecordCondition, type RecordKind } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { recordGroupsQuery, type RecordsWish } from '../api/queries';
import { PLURALS } from '../api/record-kinds';
import { ColourMark } from '../components/colour-mark';
import { count } from '../components/format';

/** How many records hold each value of a field; choosing one narrows the list to it. */
export function GroupCounts({
  kind,
  by,
  fields,
  wish,
  choose,
  narrow,
}: {
  kind: RecordKind;
  by: string | undefined;
  fields: readonly FieldDefinition[];
  wish: RecordsWish;
  choose: (field: string | undefined) => void;
  narrow: (part: RecordCondition) => void;
}) {
  const field = fields.find(({ key }) => key === by);
  return (
    <>
      <label className="inline-flex h-7 items-center gap-1 rounded border border-line bg-sheet pl-2 text-muted">
        group by
        <select
          value={by ?? ''}
          onChange={({ target }) => choose(target.value || undefined)}
          className="cursor-pointer bg-transparent pr-1 font-semibold text-ink"
        >
          <option value="">nothing</option>
          {fields.filter(canGroupBy).map(({ key, label }) => (
            <option key={key} value={key}>
              {label}
            </option>
          ))}
        </select>
      </label>
      {field && <Counts kind={kind} field={field} wish={wish} narrow={narrow} />}
    </>
  );
}

function Counts({
  kind,
  field,
  wish,
  narrow,
}: {
  kind: RecordKind;
  field: FieldDefinition;
  wish: RecordsWish;
  narrow: (part: RecordCondition) => void;
}) {
  const groups = useQuery(recordGroupsQuery(PLURALS[kind], field.key, wish));
  const condition = (value: string | null): RecordCondition => {
    const of = { field: field.key };
    if (value === null) return { of, test: 'blank' };
    if (field.type === 'yes-no') return { of, test: value === 'true' ? 'yes' : 'no' };
    return field.type === 'text' ? { of, test: 'is', value } : { of, test: 'is-any-of', value: [value] };
  };
  return (
    <>
      {groups.data?.slice(0, 12).map(({ value, count: records }) => (
        <button
          key={value ?? ''}
          type="button"
          onClick={() => narrow(condition(value))}
          className="inline-flex h-7 max-w-48 items-center gap-1.5 rounded border border-line bg-sheet px-2 hover:border-muted"
        >
          {colourOf(field, value) && <ColourMark colour={colourOf(field, value)} />}
          <span className="min-w-0 truncate">{value === null ? 'blank' : showFieldValue(field, value)}</span>
          <span className="text-muted">{count(records)}</span>
        </button>
      ))}
      {groups.data && groups.data.length > 12 && <span className="text-muted">and {groups.data.length - 12} more</span>}
    </>
  );
}

function colourOf({ options }: FieldDefinition, value: string | null) {
  return options?.find(({ key }) => key === value)?.colour;
}
