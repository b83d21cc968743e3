import type { PersonLinkShape } from '@haycart/api';
import { Copyable } from './copyable';

/** A link by which somebody sets their password: shown this once, for whoever invites to hand on. */
export function PasswordLink({ link, name }: { link: PersonLinkShape; name: string }) {
  const lasts = link.hours > 48 ? `${Math.round(link.hours / 24)} days` : `${link.hours} hours`;
  return (
    <div className="flex flex-col gap-2">
      <p>
        Send this link to {name}. It works once, within {lasts}, and is not shown again. Only they will know the
        password.
      </p>
      <Copyable text={`${window.location.origin}${link.address}`} label="link" />
    </div>
  );
}
