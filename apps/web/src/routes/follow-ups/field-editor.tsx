import { fieldOf, fieldsOf, fixedText, type Value } from '@haycart/core';
import { SelectField } from '../../components/text-field';
import type { EditorProps } from './editor';
import { RecordRow, ValueRow } from './rows';

/** Which field is set, and to what. */
export function FieldEditor({ followUp, put, definition: { writes }, destination, incoming, sample }: EditorProps) {
  const record = writes.find(({ as }) => as === followUp.on)?.record ?? 'contact';
  const fields = fieldsOf(destination, record).filter(({ kept }) => !kept);
  const field = fieldOf(destination, record, String(followUp.field));
  const value = followUp.value as Value;
  const options = field?.options?.filter(({ retired }) => !retired);
  return (
    <>
      <RecordRow name="Of" value={followUp.on} change={(on) => put({ ...followUp, on })} writes={writes} />
      <span className="text-muted">Field</span>
      <SelectField
        label="Which field"
        hideLabel
        value={String(followUp.field)}
        onChange={({ target }) => put({ ...followUp, field: target.value, value: { parts: [] } })}
      >
        <option value="">choose a field</option>
        {fields.map(({ key, label }) => (
          <option key={key} value={key}>
            {label}
          </option>
        ))}
      </SelectField>
      {options && (
        <>
          <span className="text-muted">Becomes</span>
          <SelectField
            label="What it becomes"
            hideLabel
            value={fixedText(value) ?? ''}
            onChange={({ target }) =>
              put({ ...followUp, value: { parts: target.value ? [{ text: target.value }] : [] } })
            }
          >
            <option value="">what was answered</option>
            {options.map(({ key, label }) => (
              <option key={key} value={key}>
                {label}
              </option>
            ))}
          </SelectField>
        </>
      )}
      {(!options || fixedText(value) === null || !value.parts.length) && (
        <ValueRow
          name={options ? 'Answer' : 'Becomes'}
          label="what it becomes"
          value={value}
          change={(next = { parts: [] }) => put({ ...followUp, value: next })}
          writes={writes}
          incoming={incoming}
          sample={sample}
        />
      )}
    </>
  );
}
