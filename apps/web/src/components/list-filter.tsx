import { X } from 'lucide-react';

/** One thing that a list can be narrowed to: its name, what it is called where it is not, and what there is to choose. */
export interface ListFilterChoice {
  label: string;
  any: string;
  value: string;
  options: readonly (readonly [string, string])[];
  choose: (value: string | null) => void;
}

/** One thing that a list is narrowed to, as words in a line: another is chosen by pressing it, and it is taken away by one button. */
export function ListFilter({ label, any, value, options, choose }: ListFilterChoice) {
  // An address may name what is gone, or is not read yet: it narrows the list all the same.
  const isKnown = !value || options.some(([key]) => key === value);
  return (
    <span
      className={`inline-flex h-7 items-center rounded border bg-raised ${value ? 'border-faint' : 'border-line text-muted'}`}
    >
      <label className="flex min-w-0 flex-1 items-center gap-1 pl-2">
        <span>{label}</span>
        <select
          value={value}
          onChange={({ target }) => choose(target.value || null)}
          className={`field-sizing-content min-w-0 flex-1 cursor-pointer truncate bg-transparent font-semibold sm:max-w-[220px] ${value ? 'appearance-none pr-0.5' : 'pr-1'}`}
        >
          <FilterOptions any={any} options={isKnown ? options : [...options, [value, value]]} />
        </select>
      </label>
      {value && (
        <button
          type="button"
          aria-label={`Any ${label}`}
          onClick={() => choose(null)}
          className="flex h-full items-center rounded-r px-1.5 text-muted hover:bg-straw-soft hover:text-ink"
        >
          <X className="size-3.5" aria-hidden />
        </button>
      )}
    </span>
  );
}

/** What there is to choose, first that it is not narrowed to anything. */
export function FilterOptions({ any, options }: Pick<ListFilterChoice, 'any' | 'options'>) {
  return (
    <>
      <option value="">{any}</option>
      {options.map(([key, text]) => (
        <option key={key} value={key}>
          {text}
        </option>
      ))}
    </>
  );
}
