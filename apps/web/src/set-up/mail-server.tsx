import type { MailServerShape, ProblemAt } from '@haycart/api';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { ApiError, call } from '../api/client';
import { mailServerQuery } from '../api/queries';
import { AskOnce } from '../components/ask-once';
import { Button } from '../components/button';
import { Sheet } from '../components/sheet';
import { Failed, Loading, messageOf } from '../components/status';
import { SelectField, TextField } from '../components/text-field';
import { numberOrNull, PerMinuteField } from './per-minute-field';
import { MailSenders } from './mail-senders';
import { SenderFields } from './sender-fields';

type Draft = Omit<MailServerShape, 'hasPassword' | 'port' | 'perMinute' | 'senders'> & {
  port: string;
  perMinute: string;
  password: string;
};

const BLANK: Draft = {
  host: '',
  port: '465',
  security: 'tls',
  user: null,
  password: '',
  fromName: '',
  fromAddress: '',
  replyTo: null,
  returnDomain: null,
  perMinute: '',
};
/** The usual port of each way (RFC 8314). */
const PORTS = { tls: '465', starttls: '587', none: '25' } as const;

/** The server that takes the workspace’s mail, tried by a mail to oneself. */
export function MailServer() {
  const server = useQuery(mailServerQuery);
  if (server.isPending) return <Loading lines={8} />;
  if (server.isError) return <Failed error={server.error} retry={() => void server.refetch()} />;
  const kept = server.data.server;
  const { senders = {}, ...rest } = kept ?? {};
  return (
    <div className="flex flex-col gap-5">
      <ServerForm key={JSON.stringify(rest)} kept={kept} />
      {kept && <MailSenders kept={kept} senders={senders} />}
    </div>
  );
}

function ServerForm({ kept }: { kept: MailServerShape | null }) {
  const client = useQueryClient();
  const [draft, setDraft] = useState<Draft>(() => (kept ? draftOf(kept) : BLANK));
  const put = (change: Partial<Draft>) => setDraft((before) => ({ ...before, ...change }));
  const again = () => client.invalidateQueries({ queryKey: ['channels'] });
  const save = useMutation({
    mutationFn: () => call<MailServerShape>('PUT', '/mail-server', settingOf(draft)),
    onSuccess: async () => {
      await again();
      toast('The mail server is saved.');
    },
  });
  const test = useMutation({
    mutationFn: () =>
      call<{ to: string }>('POST', '/mail-server/test', {
        subject: 'A test of Hay Cart',
        text: 'This mail came by the server that is set up in Hay Cart.',
      }),
    onSuccess: ({ to }) => toast(`A test mail was taken for ${to}.`),
    onError: (error) => toast.error(messageOf(error)),
  });
  const [removing, setRemoving] = useState(false);
  const remove = useMutation({ mutationFn: () => call('DELETE', '/mail-server'), onSuccess: again });
  const wrong: ProblemAt[] = save.error instanceof ApiError ? (save.error.problem.errors ?? []) : [];
  const errorAt = (at: string) => wrong.find((one) => one.at === at)?.message;
  return (
    <Sheet className="p-4">
      <form
        noValidate
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate();
        }}
      >
        <header className="flex flex-wrap items-center gap-3">
          <h2 className="text-lg">Mail server</h2>
          <span className="text-muted">{kept ? 'Mail is sent by it.' : 'None is set up yet, so no mail is sent.'}</span>
          {kept && (
            <Button className="ml-auto" onClick={() => test.mutate()} disabled={test.isPending}>
              {test.isPending ? 'Sending …' : 'Send a test to me'}
            </Button>
          )}
        </header>
        <div className="grid gap-4 sm:grid-cols-[minmax(0,2fr)_minmax(0,1.4fr)_100px]">
          <TextField
            label="Server"
            placeholder="smtp.quillfern.example"
            spellCheck={false}
            value={draft.host}
            error={errorAt('/host')}
            onChange={({ target }) => put({ host: target.value.trim() })}
          />
          <SelectField
            label="Encryption"
            value={draft.security}
            onChange={({ target }) => {
              const security = target.value as Draft['security'];
              put({ security, port: PORTS[security] });
            }}
          >
            <option value="tls">TLS from the beginning</option>
            <option value="starttls">STARTTLS</option>
            <option value="none">none, in the clear</option>
          </SelectField>
          <TextField
            label="Port"
            inputMode="numeric"
            className="text-right tabular-nums"
            value={draft.port}
            error={errorAt('/port')}
            onChange={({ target }) => put({ port: target.value })}
          />
        </div>
        <div className="grid gap-4 sm:grid-cols-2">
          <TextField
            label="User name"
            placeholder="none"
            autoComplete="off"
            value={draft.user ?? ''}
            error={errorAt('/user')}
            onChange={({ target }) => put({ user: target.value || null })}
          />
          <TextField
            label="Password"
            type="password"
            autoComplete="new-password"
            placeholder={kept?.hasPassword ? 'stays as it is' : 'none'}
            value={draft.password}
            error={errorAt('/password')}
            onChange={({ target }) => put({ password: target.value })}
          />
          <SenderFields sender={draft} put={put} errorAt={errorAt} />
          <TextField
            label="Mail that comes back"
            placeholder="to the sender"
            help="A domain whose mail comes to Hay Cart (its MX, and HAYCART_RETURN_PORT). What could not be delivered is then shown on the record."
            spellCheck={false}
            value={draft.returnDomain ?? ''}
            error={errorAt('/returnDomain')}
            onChange={({ target }) => put({ returnDomain: target.value.trim() || null })}
          />
          <PerMinuteField
            value={draft.perMinute}
            error={errorAt('/perMinute')}
            change={(perMinute) => put({ perMinute })}
          />
        </div>
        {save.isError && !wrong.length && (
          <p role="alert" className="text-brick">
            {messageOf(save.error)}
          </p>
        )}
        <div className="flex flex-wrap gap-2">
          <Button
            type="submit"
            look="main"
            disabled={!draft.host || !draft.fromName || !draft.fromAddress || save.isPending}
          >
            Save
          </Button>
          {kept && (
            <Button look="danger" onClick={() => setRemoving(true)}>
              Send no mail any more…
            </Button>
          )}
        </div>
      </form>
      {removing && (
        <AskOnce
          title="Send no mail any more?"
          loses="The server, its user name and its password are not kept. Mails that wait are given up into To decide."
          action="Send no mail"
          doing={remove}
          close={() => setRemoving(false)}
        />
      )}
    </Sheet>
  );
}

function draftOf({ senders: _, hasPassword: __, port, perMinute, ...kept }: MailServerShape): Draft {
  return { ...kept, port: String(port), perMinute: String(perMinute ?? ''), password: '' };
}

function settingOf({ port, perMinute, password, ...rest }: Draft) {
  return { ...rest, port: Number(port), perMinute: numberOrNull(perMinute), ...(password ? { password } : {}) };
}
