import type { FieldDefinition, JsonValue } from '@haycart/core';
import { isMoney, formatMoney } from '@haycart/core';
import { useId } from 'react';
import { ColourMark } from './colour-mark';

const BOX =
  'min-h-8 w-full min-w-0 rounded border-[1.5px] border-line bg-raised px-2 focus-visible:border-slate focus-visible:outline-0 aria-invalid:border-brick';

/** What a field holds, as it is edited: lists as lists, everything else as the text that the server reads. */
export function editableValue(value: unknown): JsonValue {
  if (value === undefined || value === null) return null;
  if (isMoney(value)) return formatMoney(value);
  if (typeof value === 'boolean') return value;
  return value as JsonValue;
}

/** The means to give a field a value, by its type. */
export function FieldInput({
  field,
  value,
  change,
  label,
  autoFocus = false,
  invalid = false,
}: {
  field: Pick<FieldDefinition, 'type' | 'options' | 'key' | 'builtIn'>;
  value: JsonValue;
  change: (value: JsonValue) => void;
  label: string;
  autoFocus?: boolean;
  invalid?: boolean;
}) {
  const common = { 'aria-label': label, 'aria-invalid': invalid || undefined, autoFocus };
  const text = typeof value === 'string' || typeof value === 'number' ? String(value) : '';
  const set = (next: string) => change(next === '' ? null : next);
  switch (field.type) {
    case 'long-text':
      return (
        <textarea
          {...common}
          rows={4}
          value={text}
          className={`${BOX} py-1`}
          onChange={({ target }) => set(target.value)}
        />
      );
    case 'yes-no':
      return (
        <select
          {...common}
          className={BOX}
          value={value === null ? '' : String(value)}
          onChange={({ target }) => change(target.value === '' ? null : target.value === 'true')}
        >
          <option value="">blank</option>
          <option value="true">yes</option>
          <option value="false">no</option>
        </select>
      );
    case 'one-of':
    case 'person':
      return (
        <select {...common} className={BOX} value={text} onChange={({ target }) => set(target.value)}>
          <option value="">{field.type === 'person' ? 'nobody' : 'blank'}</option>
          {field.options
            ?.filter(({ retired, key }) => !retired || key === value)
            .map(({ key, label: name }) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
        </select>
      );
    case 'several-of':
      return field.options ? (
        <ChooseSeveral
          field={field}
          chosen={Array.isArray(value) ? (value as string[]) : []}
          change={change}
          label={label}
        />
      ) : (
        <textarea
          {...common}
          rows={3}
          placeholder="one a line, the first one first"
          value={Array.isArray(value) ? value.join('\n') : text}
          className={`${BOX} py-1`}
          onChange={({ target }) => {
            const lines = target.value.split('\n');
            change(lines.some((line) => line.trim()) ? lines : null);
          }}
        />
      );
    default:
      return (
        <input
          {...common}
          type={
            field.type === 'date' ? 'date' : field.type === 'email' ? 'email' : field.type === 'phone' ? 'tel' : 'text'
          }
          inputMode={field.type === 'whole-number' || field.type === 'decimal' ? 'decimal' : undefined}
          placeholder={PLACEHOLDERS[field.type]}
          value={text}
          className={`${BOX} h-8`}
          onChange={({ target }) => set(target.value)}
        />
      );
  }
}

const PLACEHOLDERS: Partial<Record<FieldDefinition['type'], string>> = {
  money: 'GBP 1,200',
  'date-time': '2026-03-14T09:30:00Z',
};

/** Any number of options, each with its mark. */
export function ChooseSeveral({
  field,
  chosen,
  change,
  label,
}: {
  field: Pick<FieldDefinition, 'options'>;
  chosen: readonly string[];
  change: (chosen: string[] | null) => void;
  label: string;
}) {
  const id = useId();
  const shown = (field.options ?? []).filter(({ retired, key }) => !retired || chosen.includes(key));
  return (
    <fieldset aria-label={label} className="max-h-48 overflow-y-auto rounded border-[1.5px] border-line bg-raised p-1">
      {!shown.length && <p className="px-1.5 py-1 text-small text-muted">There is nothing to choose from yet.</p>}
      {shown.map(({ key, label: name, colour }) => (
        <label
          key={key}
          htmlFor={`${id}${key}`}
          className="flex h-7 cursor-pointer items-center gap-2 rounded px-1.5 hover:bg-hair"
        >
          <input
            id={`${id}${key}`}
            type="checkbox"
            className="size-4 accent-green"
            checked={chosen.includes(key)}
            onChange={({ target }) => {
              const next = target.checked ? [...chosen, key] : chosen.filter((one) => one !== key);
              change(next.length ? next : null);
            }}
          />
          {colour && <ColourMark colour={colour} />}
          <span className="min-w-0 truncate">{name}</span>
        </label>
      ))}
    </fieldset>
  );
}
