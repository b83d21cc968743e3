import type { NewTokenShape, TokenLine, TokenScope } from '@haycart/api';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { call } from '../api/client';
import { tokensQuery } from '../api/queries';
import { Button } from '../components/button';
import { Copyable } from '../components/copyable';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { Sheet } from '../components/sheet';
import { Empty, Failed, Loading, messageOf } from '../components/status';
import { SelectField, TextField } from '../components/text-field';
import { Time } from '../components/time';
import { SetUpPage } from './set-up-page';

const SCOPES: Record<TokenScope, string> = {
  read: 'Read only',
  send: 'Send submissions and files',
  all: 'Everything but people, tokens and secrets',
};
const LASTS = [
  [7, '7 days'],
  [30, '30 days'],
  [90, '90 days'],
  [365, '1 year'],
] as const;

/** On phones only what one decides by is shown. */
const WIDE = 'max-sm:hidden';
const HEADS = [
  ['Name', ''],
  ['May', ''],
  ['Made by', WIDE],
  ['Last used', WIDE],
  ['Ends', ''],
  ['Revoke', ''],
] as const;

/** The API tokens of scripts: who made them, what they may do, when they were used and when they end. */
export function TokensSetUp() {
  const tokens = useQuery(tokensQuery);
  const [making, setMaking] = useState(false);
  const [revoking, setRevoking] = useState<TokenLine | null>(null);
  return (
    <SetUpPage
      about="what scripts may do here"
      action={
        <Button look="main" onClick={() => setMaking(true)}>
          <Plus className="size-4" aria-hidden /> New token
        </Button>
      }
    >
      <Sheet>
        {tokens.isPending ? (
          <Loading lines={4} />
        ) : tokens.isError ? (
          <Failed error={tokens.error} retry={() => void tokens.refetch()} />
        ) : tokens.data.length ? (
          <Tokens tokens={tokens.data} revoke={setRevoking} />
        ) : (
          <Empty title="No tokens">
            A script that reads records or brings files in needs a token. Posting to an intake needs none.
          </Empty>
        )}
      </Sheet>
      {making && <NewToken close={() => setMaking(false)} />}
      {revoking && <Revoke token={revoking} close={() => setRevoking(null)} />}
    </SetUpPage>
  );
}

function Tokens({ tokens, revoke }: { tokens: readonly TokenLine[]; revoke: (token: TokenLine) => void }) {
  return (
    <table className="w-full text-left">
      <thead>
        <tr className="h-8 border-b border-line text-small text-muted">
          {HEADS.map(([head, width]) => (
            <th key={head} scope="col" className={`px-3 font-semibold ${width}`}>
              <span className={head === 'Revoke' ? 'sr-only' : ''}>{head}</span>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {tokens.map((token) => (
          <tr key={token.id} className="h-10 border-b border-hair last:border-0">
            <td className="px-3 font-semibold">{token.name}</td>
            <td className="px-3">{SCOPES[token.scope]}</td>
            <td className={`px-3 ${WIDE}`}>{token.by}</td>
            <td className={`px-3 ${WIDE}`}>
              {token.usedAt ? <Time at={token.usedAt} /> : <span className="text-muted">never</span>}
            </td>
            <td className="px-3">
              {token.expiresAt ? <Time at={token.expiresAt} /> : <span className="text-muted">no end</span>}
            </td>
            <td className="px-3 text-right">
              <Button className="!h-7" look="danger" aria-label={`Revoke ${token.name}`} onClick={() => revoke(token)}>
                Revoke
              </Button>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function NewToken({ close }: { close: () => void }) {
  const client = useQueryClient();
  const form = useForm<{ name: string; scope: TokenScope; days: string }>({
    defaultValues: { name: '', scope: 'read', days: '90' },
  });
  const make = useMutation({
    mutationFn: ({ days, ...wish }: { name: string; scope: TokenScope; days: string }) =>
      call<NewTokenShape>('POST', '/tokens', { ...wish, days: Number(days) }),
    onSuccess: () => client.invalidateQueries({ queryKey: tokensQuery.queryKey }),
  });
  if (make.data)
    return (
      <Dialog open close={close} title="The token" description="Copy it now: it is not shown again.">
        <div className="flex flex-col gap-4">
          <Copyable text={make.data.secret} label="token" />
          <div className="flex justify-end">
            <Button look="main" onClick={close}>
              Done
            </Button>
          </div>
        </div>
      </Dialog>
    );
  return (
    <Dialog open close={close} title="New token" description="It acts in your name, and ends when you leave.">
      <form
        noValidate
        className="flex flex-col gap-4"
        onSubmit={(event) => void form.handleSubmit((wish) => make.mutate(wish))(event)}
      >
        <TextField
          label="Name"
          placeholder="Nightly report"
          help="What uses it, so that you know it again."
          error={form.formState.errors.name?.message}
          {...form.register('name', { validate: (name) => name.trim() !== '' || 'Give it a name.' })}
        />
        <div className="grid gap-4 sm:grid-cols-2">
          <SelectField label="May" {...form.register('scope')}>
            {Object.entries(SCOPES).map(([scope, label]) => (
              <option key={scope} value={scope}>
                {label}
              </option>
            ))}
          </SelectField>
          <SelectField label="Ends after" {...form.register('days')}>
            {LASTS.map(([days, label]) => (
              <option key={days} value={days}>
                {label}
              </option>
            ))}
          </SelectField>
        </div>
        <DialogActions error={make.error} close={close} action="Make the token" disabled={make.isPending} />
      </form>
    </Dialog>
  );
}

function Revoke({ token, close }: { token: TokenLine; close: () => void }) {
  const client = useQueryClient();
  const revoke = useMutation({
    mutationFn: () => call('DELETE', `/tokens/${token.id}`),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: tokensQuery.queryKey });
      close();
    },
  });
  return (
    <Dialog open close={close} title={`Revoke ${token.name}?`} description="Whatever uses it stops working at once.">
      {revoke.isError && (
        <p role="alert" className="mb-3 text-small text-brick">
          {messageOf(revoke.error)}
        </p>
      )}
      <div className="flex justify-end gap-2">
        <Button onClick={close}>Cancel</Button>
        <Button look="danger" onClick={() => revoke.mutate()} disabled={revoke.isPending}>
          Revoke it
        </Button>
      </div>
    </Dialog>
  );
}
