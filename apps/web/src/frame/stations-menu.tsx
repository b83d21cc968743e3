import type { BandFigures } from '@haycart/api';
import { ChevronDown } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { Link, useLocation } from 'react-router';
import { count } from '../components/format';
import { placeAt, STATIONS } from './stations';

/** The way of a submission where there is no room to draw it: where one is, and a menu of the stations. */
export function StationsMenu({ band }: { band: BandFigures | undefined }) {
  const { name, station } = placeAt(useLocation().pathname);
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        aria-label={`Menu, at ${name}`}
        className="group relative flex h-[66px] max-w-full items-center gap-1.5 pr-2 pl-1 text-left data-[state=open]:bg-hair"
      >
        <span className="min-w-0">
          <b className="block truncate text-[14px] leading-[17px] font-bold">{name}</b>
          {station && band && <span className="block h-4 truncate text-label text-muted">{station.figure(band)}</span>}
        </span>
        <ChevronDown className="size-4 flex-none text-muted" aria-hidden />
        <span aria-hidden className="absolute bottom-[-10px] left-1 size-[18px] border-2 border-ink bg-straw" />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          sideOffset={14}
          collisionPadding={12}
          className="z-50 w-64 rounded border border-line bg-raised p-2 shadow-xl"
        >
          {STATIONS.map(({ to, name: called, figure }) => (
            <DropdownMenu.Item key={to} asChild>
              <Link
                to={to}
                aria-current={called === name ? 'page' : undefined}
                className="flex h-11 items-center gap-3 rounded px-2 outline-none data-[highlighted]:bg-straw-soft"
              >
                <span
                  aria-hidden
                  className={`flex-none border-2 border-ink ${called === name ? 'size-[18px] bg-straw' : 'mx-0.5 size-3.5 bg-sheet'}`}
                />
                <span className="flex-1 font-semibold">{called}</span>
                <span className="text-label text-muted">{band && figure(band)}</span>
              </Link>
            </DropdownMenu.Item>
          ))}
          <DropdownMenu.Separator className="my-1 h-px bg-line sm:hidden" />
          <DropdownMenu.Item asChild>
            <Link
              to="/tasks"
              aria-current={name === 'Tasks' ? 'page' : undefined}
              className="flex h-11 items-center gap-3 rounded px-2 pl-9 outline-none data-[highlighted]:bg-straw-soft sm:hidden"
            >
              <span className="flex-1 font-semibold">Tasks</span>
              <span className="text-label text-muted">{band && `${count(band.tasksDue)} due`}</span>
            </Link>
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
