import { useState, type InputHTMLAttributes } from 'react';

/** A value edited in its place: saved on Enter or when one leaves it, put back on Escape. What is refused stays, with why. */
export function SavedField({
  value,
  label,
  check,
  save,
  className = '',
  ...rest
}: Omit<InputHTMLAttributes<HTMLInputElement>, 'value' | 'onChange' | 'onBlur'> & {
  value: string;
  label: string;
  /** Why a text cannot be saved, or `null`. */
  check: (text: string) => string | null;
  save: (text: string) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const wrong = typed === null ? null : check(typed);
  const keep = () => {
    if (typed === null || wrong) return;
    if (typed.trim() !== value) save(typed.trim());
    setTyped(null);
  };
  const press = (event: React.KeyboardEvent<HTMLInputElement>) => {
    if (event.key === 'Enter') keep();
    if (event.key === 'Escape') setTyped(null);
    rest.onKeyDown?.(event);
  };
  return (
    <span className="relative block min-w-0">
      <input
        {...rest}
        aria-label={label}
        aria-invalid={wrong ? true : undefined}
        value={typed ?? value}
        onChange={({ target }) => setTyped(target.value)}
        onBlur={keep}
        onKeyDown={press}
        className={`h-8 w-full min-w-0 rounded border border-transparent bg-transparent px-2 hover:border-line focus-visible:border-slate focus-visible:bg-raised focus-visible:outline-0 aria-invalid:border-brick ${className}`}
      />
      {wrong && (
        <span
          role="alert"
          className="absolute top-full left-0 z-10 rounded-b border border-brick bg-raised px-2 py-0.5 text-small whitespace-nowrap text-brick"
        >
          {wrong}
        </span>
      )}
    </span>
  );
}
