import type { SessionShape } from '@haycart/api';
import { useQueryClient } from '@tanstack/react-query';
import { DropdownMenu } from 'radix-ui';
import { Link } from 'react-router';
import { call } from '../api/client';
import { useTheme } from '../state/theme';

const ITEM = 'flex h-8 cursor-pointer items-center gap-2 rounded px-2 outline-none data-[highlighted]:bg-straw-soft';

/** Who you are, the theme, and the way out. */
export function YouMenu({ session }: { session: SessionShape }) {
  const client = useQueryClient();
  const { theme, choose } = useTheme();
  const initials = session.person.name
    .split(' ')
    .map((word) => word[0])
    .join('')
    .slice(0, 2)
    .toUpperCase();
  const signOut = async () => {
    await call('DELETE', '/session');
    client.clear();
    window.location.assign('/');
  };
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        aria-label={`You: ${session.person.name}`}
        className="size-7 rounded bg-green text-center text-label leading-7 font-semibold text-on-green"
      >
        {initials}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={8}
          className="z-50 w-60 rounded border border-line bg-raised p-2 shadow-xl"
        >
          <div className="px-2 pb-2">
            <b className="block font-semibold">{session.person.name}</b>
            <span className="block text-small text-muted">{session.person.email}</span>
          </div>
          <DropdownMenu.RadioGroup
            value={theme}
            onValueChange={(value) => choose(value as typeof theme)}
            className="border-y border-hair py-1"
          >
            {(['light', 'dark', 'system'] as const).map((value) => (
              <DropdownMenu.RadioItem
                key={value}
                value={value}
                className={ITEM}
                onSelect={(event) => event.preventDefault()}
              >
                <span
                  aria-hidden
                  className={`size-2.5 border-[1.6px] border-ink ${theme === value ? 'bg-straw' : ''}`}
                />
                {{ light: 'Light theme', dark: 'Dark theme', system: 'Theme of the system' }[value]}
              </DropdownMenu.RadioItem>
            ))}
          </DropdownMenu.RadioGroup>
          <DropdownMenu.Item asChild className={`${ITEM} mt-1`}>
            <Link to="/account">Password and sessions</Link>
          </DropdownMenu.Item>
          <DropdownMenu.Item asChild className={ITEM}>
            <a href="/api/docs">API, for scripts</a>
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={() => void signOut()}>
            Sign out
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
