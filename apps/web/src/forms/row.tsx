import type { ReactNode } from 'react';

export const BOX =
  'h-8 w-full min-w-0 rounded border border-faint bg-raised px-2 text-ink placeholder:text-faint focus-visible:outline-2 focus-visible:outline-offset-0 focus-visible:outline-slate';

/** One setting in the outline: its name at the left, what it is at the right. */
export function Row({ label, children, tall = false }: { label: string; children: ReactNode; tall?: boolean }) {
  return (
    <label className={`grid grid-cols-[88px_minmax(0,1fr)] gap-2 ${tall ? 'items-start' : 'items-center'}`}>
      <span className={`text-small text-muted ${tall ? 'pt-1.5' : ''}`}>{label}</span>
      {children}
    </label>
  );
}

/** A text setting; blank is none. */
export function TextRow({
  label,
  value,
  change,
  placeholder,
  lines = 1,
  mono = false,
}: {
  label: string;
  value: string | undefined;
  change: (value: string | undefined) => void;
  placeholder?: string | undefined;
  lines?: number;
  mono?: boolean;
}) {
  const shared = {
    value: value ?? '',
    placeholder,
    onChange: ({ target }: { target: { value: string } }) => change(target.value === '' ? undefined : target.value),
  };
  const look = mono ? 'font-mono text-[12.5px]' : '';
  return (
    <Row label={label} tall={lines > 1}>
      {lines > 1 ? (
        <textarea rows={lines} className={`${BOX} h-auto py-1 ${look}`} {...shared} />
      ) : (
        <input className={`${BOX} ${look}`} {...shared} />
      )}
    </Row>
  );
}

/** A number setting; blank is none. */
export function NumberRow({
  label,
  value,
  change,
  placeholder,
}: {
  label: string;
  value: number | undefined;
  change: (value: number | undefined) => void;
  placeholder?: string;
}) {
  return (
    <Row label={label}>
      <input
        inputMode="decimal"
        className={`${BOX} text-right`}
        placeholder={placeholder}
        value={value ?? ''}
        onChange={({ target }) => {
          const text = target.value.replace(/[^\d.-]/g, '');
          change(text === '' || Number.isNaN(Number(text)) ? undefined : Number(text));
        }}
      />
    </Row>
  );
}

/** A setting that is on or off. */
export function TickRow({
  label,
  checked,
  change,
}: {
  label: string;
  checked: boolean;
  change: (checked: boolean) => void;
}) {
  return (
    <label className="flex items-center gap-2">
      <input
        type="checkbox"
        className="size-4 accent-green"
        checked={checked}
        onChange={({ target }) => change(target.checked)}
      />
      {label}
    </label>
  );
}

export function SelectRow<Option extends string>({
  label,
  value,
  options,
  change,
}: {
  label: string;
  value: Option;
  options: readonly (readonly [Option, string])[];
  change: (value: Option) => void;
}) {
  return (
    <Row label={label}>
      <select
        className={`${BOX} cursor-pointer`}
        value={value}
        onChange={({ target }) => change(target.value as Option)}
      >
        {options.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </Row>
  );
}
