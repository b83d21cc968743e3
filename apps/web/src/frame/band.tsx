import type { SessionShape } from '@haycart/api';
import { useQuery } from '@tanstack/react-query';
import { Search, SlidersHorizontal } from 'lucide-react';
import { Link, NavLink } from 'react-router';
import { bandQuery } from '../api/queries';
import { IconButton } from '../components/button';
import { CartMark } from '../components/cart-mark';
import { count } from '../components/format';
import { STATIONS } from './stations';
import { StationsMenu } from './stations-menu';
import { YouMenu } from './you-menu';

/** The band across the top: the way a submission takes, with today's figures, is the navigation. */
export function Band({ session, search }: { session: SessionShape; search: () => void }) {
  const band = useQuery(bandQuery);
  const [first, ...rest] = session.workspace.name.split(' ');
  return (
    <header className="relative z-20 flex h-[68px] flex-none items-stretch border-b-2 border-ink bg-sheet px-5 max-sm:px-3">
      <Link
        to="/"
        aria-label={`${session.workspace.name}, home`}
        className="flex flex-none items-center gap-2.5 pr-4 max-sm:pr-2 md:w-[196px]"
      >
        <CartMark className="w-9" />
        <span className="max-md:hidden">
          <b className="block font-heading text-[15px] leading-[18px] font-semibold">{first}</b>
          <span className="block text-label text-muted">{rest.join(' ')}</span>
        </span>
      </Link>
      <nav aria-label="The way of a submission" className="min-w-0 flex-1">
        <div className="min-[900px]:hidden">
          <StationsMenu band={band.data} />
        </div>
        <ul className="flex pl-2 max-[899px]:hidden">
          {STATIONS.map(({ to, name, figure }) => (
            <li key={to} className="flex-1">
              <NavLink to={to} className="group relative block h-[68px] pt-3.5 text-muted">
                {({ isActive }) => (
                  <>
                    <b
                      className={`block text-[14px] leading-[17px] text-ink group-hover:underline ${isActive ? 'font-bold' : 'font-semibold'}`}
                    >
                      {name}
                    </b>
                    <span className="block h-4 text-label">{band.data ? figure(band.data) : ''}</span>
                    <span
                      aria-hidden
                      className={`absolute left-0 border-2 border-ink ${isActive ? 'bottom-[-8px] size-[18px] bg-straw' : 'bottom-[-6px] size-3.5 bg-sheet'}`}
                    />
                  </>
                )}
              </NavLink>
            </li>
          ))}
        </ul>
      </nav>
      <div className="flex flex-none items-center gap-2 pl-3 max-sm:gap-1 max-sm:pl-1">
        <NavLink
          to="/tasks"
          className="inline-flex h-8 flex-none items-center gap-2 rounded border-[1.5px] border-line px-2.5 font-semibold hover:bg-hair aria-[current=page]:border-ink max-sm:hidden"
        >
          Tasks
          <span className="tabular-nums" title="Yours that are due today or overdue">
            {band.data ? count(band.data.tasksDue) : ''}
          </span>
        </NavLink>
        <NavLink
          to="/decide"
          className={`inline-flex h-8 flex-none items-center gap-2 rounded border-[1.5px] px-2.5 font-semibold ${band.data?.toDecide ? 'border-ink bg-straw-soft' : 'border-line text-muted hover:bg-hair'} aria-[current=page]:border-ink`}
        >
          <span className="max-sm:sr-only">To decide</span>
          <span className="tabular-nums">{band.data ? count(band.data.toDecide) : ''}</span>
        </NavLink>
        <IconButton label="Find anything (Ctrl+K)" onClick={search}>
          <Search className="size-[18px]" strokeWidth={1.75} aria-hidden />
        </IconButton>
        <NavLink
          to="/set-up"
          aria-label="Set up"
          title="Set up"
          className="inline-flex size-8 flex-none items-center justify-center rounded hover:bg-hair aria-[current=page]:bg-straw-soft"
        >
          <SlidersHorizontal className="size-[18px]" strokeWidth={1.75} aria-hidden />
        </NavLink>
        <YouMenu session={session} />
      </div>
    </header>
  );
}
