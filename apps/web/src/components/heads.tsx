import type { ReactNode } from 'react';

/** The heads of the columns of a table. */
export function Heads({ children }: { children: ReactNode }) {
  return (
    <thead>
      <tr className="border-b border-line text-label text-muted">{children}</tr>
    </thead>
  );
}

/** The head of one column; figures stand at its end. */
export function Head({ end, look = '', children }: { end?: boolean; look?: string; children: ReactNode }) {
  return (
    <th
      scope="col"
      className={`px-2 py-2 font-semibold first:pl-3.5 last:pr-3.5 ${end ? 'text-right' : 'text-left'} ${look}`}
    >
      {children}
    </th>
  );
}
