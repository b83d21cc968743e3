import type { ReactNode } from 'react';
import { NavLink } from 'react-router';
import { PageHead } from '../components/sheet';

const PARTS = [
  ['Pipelines', '/set-up/pipelines'],
  ['Fields', '/set-up/fields'],
] as const;

/** The heading of every part of the set-up, with the way to the others. */
export function SetUpHead({ aside, children }: { aside: ReactNode; children?: ReactNode }) {
  return (
    <PageHead title="Set up" aside={aside}>
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
      {children}
    </PageHead>
  );
}
