import type { ReactNode } from 'react';
import { NavLink } from 'react-router';
import { PageHead } from '../components/sheet';

const PARTS = [
  ['Pipelines', '/set-up/pipelines'],
  ['Fields', '/set-up/fields'],
] as const;

/** Every part of the set-up: the way to the other parts, what there is at the left, and the one that is open. */
export function SetUpPage({
  about,
  action,
  list,
  side,
  children,
}: {
  about: string;
  action: ReactNode;
  /** What the list at the left holds, for screen readers. */
  list: string;
  side: ReactNode;
  children: ReactNode;
}) {
  return (
    <div className="h-full overflow-y-auto p-5">
      <PageHead title="Set up" aside={about}>
        <nav aria-label="Parts of the set-up" className="flex overflow-hidden rounded border border-line bg-sheet">
          {PARTS.map(([name, to]) => (
            <NavLink
              key={to}
              to={to}
              className={({ isActive }) =>
                `flex h-[30px] items-center px-3 font-semibold ${isActive ? 'bg-ink text-sheet' : 'hover:bg-raised'}`
              }
            >
              {name}
            </NavLink>
          ))}
        </nav>
        {action}
      </PageHead>
      <div className="grid gap-5 lg:grid-cols-[220px_minmax(0,1fr)]">
        <nav aria-label={list}>
          <ul className="flex flex-col gap-1 max-lg:flex-row max-lg:flex-wrap">{side}</ul>
        </nav>
        <div className="flex min-w-0 flex-col gap-5">{children}</div>
      </div>
    </div>
  );
}
