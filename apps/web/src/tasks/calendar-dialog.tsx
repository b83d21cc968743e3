import { Link } from 'react-router';
import { Copyable } from '../components/copyable';
import { Dialog } from '../components/dialog';

/** How a calendar subscribes to tasks. */
export function CalendarDialog({ owner, close }: { owner: string | undefined; close: () => void }) {
  const whose = owner === undefined ? '' : `?owner=${encodeURIComponent(owner)}`;
  return (
    <Dialog
      open
      close={close}
      title="Tasks in a calendar"
      description="Calendars that read iCalendar subscribe to this address; it gives the open tasks, the next due first."
    >
      <Copyable label="address" text={`${window.location.origin}/api/v1/tasks.ics${whose}`} />
      <p className="text-muted">
        Where it asks for a name and a password, any name does; the password is a token that may read, from{' '}
        <Link to="/set-up/tokens" className="text-slate underline">
          Set up, Tokens
        </Link>
        .
      </p>
    </Dialog>
  );
}
