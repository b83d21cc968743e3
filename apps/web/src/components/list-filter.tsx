import { X } from 'lucide-react';

/** One thing that a list is narrowed to, as words in a line: chosen, and taken away by one button. */
export function ListFilter({
  label,
  any,
  value,
  options,
  choose,
}: {
  label: string;
  any: string;
  value: string;
  options: readonly (readonly [string, string])[];
  choose: (value: string | null) => void;
}) {
  return (
    <span
      className={`inline-flex h-8 items-center rounded border ${value ? 'border-ink bg-straw-soft' : 'border-line bg-sheet'}`}
    >
      <label className="flex min-w-0 flex-1 items-center gap-1 pl-2">
        <span className="text-muted">{label}</span>
        <select
          value={value}
          onChange={({ target }) => choose(target.value || null)}
          className="min-w-0 flex-1 cursor-pointer truncate bg-transparent pr-1 font-semibold sm:max-w-[170px]"
        >
          <option value="">{any}</option>
          {options.map(([key, text]) => (
            <option key={key} value={key}>
              {text}
            </option>
          ))}
        </select>
      </label>
      {value && (
        <button
          type="button"
          aria-label={`Any ${label}`}
          onClick={() => choose(null)}
          className="flex h-full items-center px-1.5 hover:bg-straw"
        >
          <X className="size-3.5" aria-hidden />
        </button>
      )}
    </span>
  );
}
