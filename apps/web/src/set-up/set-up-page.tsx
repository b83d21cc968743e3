import type { ReactNode } from 'react';
import { NavLink } from 'react-router';
import { PageHead } from '../components/sheet';
import { SetUpSearch } from './set-up-search';

const PARTS = [
  ['Setup check', '/set-up/ready'],
  ['Pipelines', '/set-up/pipelines'],
  ['Fields', '/set-up/fields'],
  ['People', '/set-up/people'],
  ['Teams', '/set-up/teams'],
  ['Lists', '/set-up/lists'],
  ['Tags', '/set-up/tags'],
  ['Value sets', '/set-up/value-sets'],
  ['Sources', '/set-up/sources'],
  ['Tokens', '/set-up/tokens'],
  ['Workspace', '/set-up/workspace'],
  ['Channels', '/set-up/channels'],
  ['Mail', '/set-up/mail'],
  ['Outbox', '/set-up/outbox'],
  ['Audit', '/set-up/audit'],
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
  action?: ReactNode;
  /** What the list at the left holds, for screen readers. */
  list?: string;
  side?: ReactNode;
  children: ReactNode;
}) {
  return (
    <div className="h-full overflow-y-auto p-5">
      <PageHead title="Set up" aside={about}>
        <SetUpSearch />
        {action}
      </PageHead>
      <nav aria-label="Parts of the set-up" className="mb-4 flex overflow-x-auto border-b border-line">
        {PARTS.map(([name, to]) => (
          <NavLink
            key={to}
            to={to}
            className={({ isActive }) =>
              `flex h-9 flex-none items-center border-b-[3px] px-3 font-semibold ${isActive ? 'border-straw text-ink' : 'border-transparent text-muted hover:text-ink'}`
            }
          >
            {name}
          </NavLink>
        ))}
      </nav>
      <div className={side ? 'grid gap-5 lg:grid-cols-[220px_minmax(0,1fr)]' : ''}>
        {side && (
          <nav aria-label={list}>
            <ul className="flex flex-col gap-1 max-lg:flex-row max-lg:flex-wrap">{side}</ul>
          </nav>
        )}
        <div className="flex min-w-0 flex-col gap-5">{children}</div>
      </div>
    </div>
  );
}
