import type { ReactNode } from 'react';
import { NavLink } from 'react-router';

/** One of the things at the left of the set-up, of which one is open. */
export function SideLink({
  to,
  name,
  chosen,
  children,
}: {
  to: string;
  name: string;
  chosen: boolean;
  children: ReactNode;
}) {
  return (
    <li>
      <NavLink
        to={to}
        aria-current={chosen ? 'page' : undefined}
        className={`block rounded border px-3 py-1.5 ${chosen ? 'border-line bg-straw-soft shadow-[inset_4px_0_0_var(--color-straw)]' : 'border-transparent hover:border-line hover:bg-sheet'}`}
      >
        <b className="block truncate font-semibold">{name}</b>
        <span className="block truncate text-small text-muted">{children}</span>
      </NavLink>
    </li>
  );
}
