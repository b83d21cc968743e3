import type { MailSender, MailServerShape, ProblemAt } from '@haycart/api';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { ApiError, call } from '../api/client';
import { useDestination } from '../api/destination';
import { Button } from '../components/button';
import { Sheet } from '../components/sheet';
import { messageOf } from '../components/status';
import { SenderFields } from './sender-fields';

/** In whose name each team writes; one without a name of its own writes in that of the firm. */
export function MailSenders({
  kept,
  senders,
}: {
  kept: MailServerShape;
  senders: Readonly<Record<string, MailSender>>;
}) {
  const teams = Object.entries(useDestination()?.teams ?? {});
  if (!teams.length) return null;
  return (
    <Sheet className="p-4">
      <h2 className="text-lg">Senders by team</h2>
      <p className="mb-3 text-muted">
        A mail of a route is from the firm unless it says from which team. A team without a name here writes as the firm
        does: {kept.fromName}, {kept.fromAddress}.
      </p>
      <ul className="flex flex-col">
        {teams.map(([key, { name }]) => (
          <Sender key={`${key} ${JSON.stringify(senders[key])}`} team={key} name={name} kept={senders[key]} />
        ))}
      </ul>
    </Sheet>
  );
}

const BLANK: MailSender = { fromName: '', fromAddress: '', replyTo: null };

function Sender({ team, name, kept }: { team: string; name: string; kept: MailSender | undefined }) {
  const client = useQueryClient();
  const [draft, setDraft] = useState(kept ?? BLANK);
  const put = (change: Partial<MailSender>) => setDraft((before) => ({ ...before, ...change }));
  const address = `/mail-server/senders/${encodeURIComponent(team)}`;
  const onSuccess = async () => {
    await client.invalidateQueries({ queryKey: ['channels'] });
    toast(`The team ${name} is saved.`);
  };
  const save = useMutation({ mutationFn: () => call('PUT', address, draft), onSuccess });
  const remove = useMutation({ mutationFn: () => call('DELETE', address), onSuccess });
  const wrong: ProblemAt[] = save.error instanceof ApiError ? (save.error.problem.errors ?? []) : [];
  const errorAt = (at: string) => wrong.find((one) => one.at === at)?.message;
  const error = remove.error ?? (wrong.length ? null : save.error);
  return (
    <li className="border-t border-hair py-3">
      <form
        noValidate
        aria-label={`The team ${name}`}
        className="grid items-end gap-3 sm:grid-cols-[88px_minmax(0,1fr)_minmax(0,1.2fr)_minmax(0,1.2fr)_184px]"
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate();
        }}
      >
        <b className="self-center font-semibold [overflow-wrap:anywhere]">{name}</b>
        <SenderFields sender={draft} put={put} errorAt={errorAt} />
        <span className="flex gap-2">
          <Button type="submit" disabled={!draft.fromName || !draft.fromAddress || draft === kept || save.isPending}>
            Save
          </Button>
          {kept && (
            <Button onClick={() => remove.mutate()} disabled={remove.isPending}>
              As the firm
            </Button>
          )}
        </span>
      </form>
      {error && (
        <p role="alert" className="mt-1 text-brick">
          {messageOf(error)}
        </p>
      )}
    </li>
  );
}
