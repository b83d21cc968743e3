import type { ReportMail } from '@haycart/api';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Mail, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { call } from '../api/client';
import { reportMailsQuery } from '../api/queries';
import { Button, IconButton } from '../components/button';
import { shortDay } from '../components/format';
import { Popover } from '../components/popover';
import { sayDone } from '../components/say-done';
import { messageOf } from '../components/status';
import { TextField } from '../components/text-field';
import { Time } from '../components/time';

/** Has the report as it is looked at mailed each Monday, and lists what one is mailed already. */
export function ReportMails({
  query,
  note,
}: {
  query: Record<string, string | undefined>;
  /** In what the mail differs from the page. */
  note: string | null;
}) {
  const [isOpen, setIsOpen] = useState(false);
  return (
    <Popover
      label="Mail"
      align="end"
      wide
      open={isOpen}
      onOpenChange={setIsOpen}
      trigger={
        <Button className="!h-7">
          <Mail className="size-3.5" aria-hidden /> Mail
        </Button>
      }
    >
      {note && <p className="mb-2 text-small text-muted">{note}</p>}
      <Mails query={query} />
    </Popover>
  );
}

function Mails({ query }: { query: Record<string, string | undefined> }) {
  const client = useQueryClient();
  const mails = useQuery(reportMailsQuery);
  const [name, setName] = useState('');
  const again = () => client.invalidateQueries(reportMailsQuery);
  const add = useMutation({
    mutationFn: () => call<ReportMail>('POST', '/report-mails', { name: name.trim(), query: asked(query) }),
    onSuccess: async ({ nextAt }) => {
      setName('');
      await again();
      sayDone(`It is mailed to you each Monday, first on ${shortDay(nextAt)}.`);
    },
  });
  return (
    <div className="flex flex-col gap-3">
      <form
        className="flex items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) add.mutate();
        }}
      >
        <div className="flex-1">
          <TextField
            label="Mail this view to me each Monday, as"
            value={name}
            maxLength={100}
            placeholder="Sources of last week"
            onChange={({ target }) => setName(target.value)}
          />
        </div>
        <Button look="main" type="submit" disabled={!name.trim() || add.isPending}>
          Mail it
        </Button>
      </form>
      {add.isError && (
        <p role="alert" className="text-brick">
          {messageOf(add.error)}
        </p>
      )}
      {mails.isError && (
        <p role="alert" className="text-brick">
          {messageOf(mails.error)}
        </p>
      )}
      {(mails.data?.length ?? 0) > 0 && (
        <ul aria-label="What is mailed to you">
          {mails.data!.map((mail) => (
            <MailLine key={mail.id} mail={mail} changed={again} />
          ))}
        </ul>
      )}
    </div>
  );
}

function MailLine({ mail: { id, name, query, sentAt, error }, changed }: { mail: ReportMail; changed: () => unknown }) {
  const send = useMutation({
    mutationFn: () => call<ReportMail>('POST', `/report-mails/${id}/send`),
    onSuccess: async (sent) => {
      await changed();
      if (!sent.error) sayDone(`“${name}” was mailed to you.`);
    },
  });
  const add = useMutation({ mutationFn: () => call('POST', '/report-mails', { name, query }), onSuccess: changed });
  const remove = useMutation({
    mutationFn: () => call('DELETE', `/report-mails/${id}`),
    onSuccess: async () => {
      await changed();
      sayDone(`“${name}” is not mailed any more.`, { label: 'Undo', act: () => add.mutate() });
    },
  });
  const failure = send.error ?? remove.error;
  return (
    <li className="flex min-h-10 items-center gap-2 border-t border-hair py-1">
      <span className="min-w-0 flex-1">
        <span className="block truncate font-semibold">{name}</span>
        <span className={`block text-small ${error || failure ? 'text-brick' : 'text-muted'}`}>
          {failure ? (
            messageOf(failure)
          ) : error ? (
            error
          ) : sentAt ? (
            <>
              mailed <Time at={sentAt} />
            </>
          ) : (
            'not mailed yet'
          )}
        </span>
      </span>
      <Button className="!h-7" disabled={send.isPending} onClick={() => send.mutate()}>
        {send.isPending ? 'Sending' : 'Send now'}
      </Button>
      <IconButton label={`Mail “${name}” no more`} className="!size-7 text-muted" onClick={() => remove.mutate()}>
        <Trash2 className="size-4" aria-hidden />
      </IconButton>
    </li>
  );
}

/** Without what is not said. */
function asked(query: Record<string, string | undefined>): Record<string, string | number> {
  return Object.fromEntries(
    Object.entries(query).flatMap(([name, value]) =>
      value === undefined ? [] : [[name, name === 'window' || name === 'halfLife' ? Number(value) : value]],
    ),
  );
}
