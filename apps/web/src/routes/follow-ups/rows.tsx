import type { ProfileFieldShape } from '@haycart/api';
import type { RecordKind, Value, Write } from '@haycart/core';
import { useWords } from '../../api/words';
import { SelectField } from '../../components/text-field';
import { PartsCell } from '../parts-cell';

/** A row of an editor in which a value is put together. */
export function ValueRow({
  name,
  label,
  value,
  change,
  writes,
  incoming,
  sample,
}: {
  name: string;
  /** What is put together, for the buttons: `the title`. */
  label: string;
  value: Value | undefined;
  change: (value: Value | undefined) => void;
  writes: readonly Write[];
  incoming: readonly ProfileFieldShape[];
  sample: ReadonlyMap<string, string>;
}) {
  return (
    <>
      <span className="text-muted">{name}</span>
      <div className="rounded border border-faint bg-raised px-1.5 py-1">
        <PartsCell
          value={value ?? { parts: [] }}
          change={(next) => change(next.parts.length ? next : undefined)}
          earlier={writes}
          incoming={incoming}
          sample={sample}
          label={label}
        />
      </div>
    </>
  );
}

/** A row in which one chooses the record that something is about. */
export function RecordRow({
  name,
  value,
  change,
  writes,
  none,
}: {
  name: string;
  value: string | undefined;
  change: (as: string | undefined) => void;
  writes: readonly Write[];
  /** What choosing none of them is called, where one may. */
  none?: string;
}) {
  const words = useWords();
  const kinds = writes.map(({ record }) => record);
  const called = (as: string, record: RecordKind) =>
    kinds.filter((kind) => kind === record).length > 1 ? `the ${words.one(record)} ${as}` : `the ${words.one(record)}`;
  return (
    <>
      <span className="text-muted">{name}</span>
      <SelectField
        label={`${name} which record`}
        hideLabel
        value={value ?? ''}
        onChange={({ target }) => change(target.value || undefined)}
      >
        {none && <option value="">{none}</option>}
        {writes.map(({ as, record }) => (
          <option key={as} value={as}>
            {called(as, record)}
          </option>
        ))}
      </SelectField>
    </>
  );
}
