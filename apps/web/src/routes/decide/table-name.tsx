import { useState } from 'react';

/** The name of a table as the heading of its page, which can be typed over. */
export function TableName({
  name,
  taken,
  rename,
}: {
  name: string;
  taken: readonly string[];
  rename: (name: string) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const wish = typed?.trim() ?? '';
  const isTaken = wish !== name && taken.includes(wish);
  const end = () => {
    if (wish !== '' && wish !== name && !isTaken) rename(wish);
    setTyped(null);
  };
  if (typed === null)
    return (
      <button type="button" title="Rename" className="rounded text-left hover:bg-hair" onClick={() => setTyped(name)}>
        {name}
      </button>
    );
  return (
    <input
      autoFocus
      aria-label="Name of the table"
      aria-invalid={isTaken}
      title={isTaken ? 'Another table has this name.' : undefined}
      maxLength={200}
      className="w-[24ch] max-w-full rounded border border-faint bg-raised px-2 aria-invalid:border-brick"
      value={typed}
      onChange={({ target }) => setTyped(target.value)}
      onBlur={end}
      onKeyDown={({ key }) => {
        if (key === 'Enter') end();
        if (key === 'Escape') setTyped(null);
      }}
    />
  );
}
