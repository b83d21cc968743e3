import type { ProblemAt, WorkspaceShape } from '@haycart/api';
import type { ExchangeRate } from '@haycart/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { X } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { ApiError, call } from '../api/client';
import { ratesQuery, workspaceQuery } from '../api/queries';
import { Button, IconButton } from '../components/button';
import { Sheet } from '../components/sheet';
import { Failed, Loading, messageOf } from '../components/status';
import { SelectField, TextArea, TextField } from '../components/text-field';
import { FormDomains } from './form-domains';
import { SetUpPage } from './set-up-page';

/** The workspace itself: its name and defaults, its words, and its exchange rates. */
export function WorkspaceSetUp() {
  const workspace = useQuery(workspaceQuery);
  const rates = useQuery(ratesQuery);
  if (workspace.isPending || rates.isPending) return <Loading />;
  if (workspace.isError) return <Failed error={workspace.error} retry={() => void workspace.refetch()} />;
  return (
    <SetUpPage about="its defaults, words, rates and domains">
      <div className="grid items-start gap-5 lg:grid-cols-2">
        <Defaults workspace={workspace.data} />
        <div className="flex flex-col gap-5">
          <Rates own={workspace.data.defaultCurrency} rates={rates.data ?? []} />
          <FormDomains />
        </div>
      </div>
    </SetUpPage>
  );
}

function Defaults({ workspace }: { workspace: WorkspaceShape }) {
  const client = useQueryClient();
  const [draft, setDraft] = useState(workspace);
  const put = (change: Partial<WorkspaceShape>) => setDraft((before) => ({ ...before, ...change }));
  const save = useMutation({
    mutationFn: ({
      name,
      defaultCountry,
      defaultCurrency,
      leadHandling,
      dealWord,
      blockedWords,
      blockedDomains,
    }: WorkspaceShape) =>
      call<WorkspaceShape>('PATCH', '/workspace', {
        name: name.trim(),
        defaultCountry: defaultCountry.toUpperCase(),
        defaultCurrency: defaultCurrency.toUpperCase(),
        leadHandling,
        dealWord,
        blockedWords: blockedWords.map((one) => one.trim()).filter(Boolean),
        blockedDomains: blockedDomains.map((one) => one.trim().toLowerCase()).filter(Boolean),
      }),
    onSuccess: async () => {
      await client.invalidateQueries();
      toast('The workspace is saved.');
    },
    onError: (error) => toast.error(messageOf(error)),
  });
  return (
    <Sheet className="p-4">
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate(draft);
        }}
      >
        <h2 className="text-base">{workspace.name}</h2>
        <TextField label="Name" value={draft.name} onChange={({ target }) => put({ name: target.value })} />
        <div className="grid grid-cols-2 gap-4">
          <TextField
            label="Country"
            maxLength={2}
            help="How a phone number without a country is read."
            value={draft.defaultCountry}
            onChange={({ target }) => put({ defaultCountry: target.value })}
          />
          <TextField
            label="Currency"
            maxLength={3}
            help="What amounts are added up in."
            value={draft.defaultCurrency}
            onChange={({ target }) => put({ defaultCurrency: target.value })}
          />
        </div>
        <SelectField
          label="Lead handling"
          help="What a new route makes of an enquiry. Routes that are there stay as they are."
          value={draft.leadHandling}
          onChange={({ target }) => put({ leadHandling: target.value as WorkspaceShape['leadHandling'] })}
        >
          <option value="deals">straight to {draft.dealWord === 'deal' ? 'deals' : 'opportunities'}</option>
          <option value="leads">leads first, which somebody qualifies</option>
        </SelectField>
        <SelectField
          label="A deal is called"
          value={draft.dealWord}
          onChange={({ target }) => put({ dealWord: target.value as WorkspaceShape['dealWord'] })}
        >
          <option value="deal">deal</option>
          <option value="opportunity">opportunity</option>
        </SelectField>
        <TextArea
          label="Blocked words"
          help="One a line. A form’s submission that holds one is set aside for a person, never dropped."
          rows={3}
          value={draft.blockedWords.join('\n')}
          onChange={({ target }) => put({ blockedWords: target.value.split('\n') })}
        />
        <TextArea
          label="Blocked domains"
          help="One a line, such as spam.example."
          rows={3}
          value={draft.blockedDomains.join('\n')}
          onChange={({ target }) => put({ blockedDomains: target.value.split('\n') })}
        />
        <div className="flex justify-end">
          <Button look="main" type="submit" disabled={save.isPending}>
            Save the workspace
          </Button>
        </div>
      </form>
    </Sheet>
  );
}

const CELL = 'h-8 w-full min-w-0 rounded border border-faint bg-raised px-2 aria-invalid:border-brick';

function Rates({ own, rates }: { own: string; rates: readonly ExchangeRate[] }) {
  const client = useQueryClient();
  const [lines, setLines] = useState<ExchangeRate[]>([...rates]);
  const save = useMutation({
    mutationFn: () =>
      call<ExchangeRate[]>('PUT', '/exchange-rates', {
        rates: lines.map(({ currency, from, rate }) => ({
          currency: currency.trim().toUpperCase(),
          from,
          rate: rate.trim().replace(',', '.'),
        })),
      }),
    onSuccess: async (saved) => {
      setLines(saved);
      await client.invalidateQueries({ queryKey: ['pipelines'] });
      await client.invalidateQueries({ queryKey: ['records', 'grid'] });
      toast('The rates are saved.');
    },
  });
  const wrong: ProblemAt[] = save.error instanceof ApiError ? (save.error.problem.errors ?? []) : [];
  const error = (at: string) => wrong.find((one) => one.at === at)?.message;
  const put = (index: number, change: Partial<ExchangeRate>) =>
    setLines(lines.map((line, at) => (at === index ? { ...line, ...change } : line)));
  return (
    <Sheet className="p-4">
      <h2 className="text-base">Exchange rates</h2>
      <p className="mb-2 text-muted">The value of one unit in {own}, from a day until the next rate.</p>
      <div className="grid grid-cols-[84px_minmax(0,1fr)_minmax(0,1fr)_32px] items-start gap-2">
        {['Currency', 'From', 'Rate', ''].map((head) => (
          <span key={head} className="text-label font-semibold text-muted">
            {head}
          </span>
        ))}
        {lines.map((line, index) => (
          <div key={index} className="contents">
            {(['currency', 'from', 'rate'] as const).map((name) => {
              const message = error(`/rates/${index}/${name}`);
              return (
                <span key={name}>
                  <input
                    aria-label={`${name} of rate ${index + 1}`}
                    type={name === 'from' ? 'date' : 'text'}
                    className={`${CELL} ${name === 'rate' ? 'text-right' : ''}`}
                    aria-invalid={message ? true : undefined}
                    value={line[name]}
                    onChange={({ target }) => put(index, { [name]: target.value })}
                  />
                  {message && (
                    <span role="alert" className="text-small text-brick">
                      {message}
                    </span>
                  )}
                </span>
              );
            })}
            <IconButton label={`Remove rate ${index + 1}`} onClick={() => setLines(lines.toSpliced(index, 1))}>
              <X className="size-4" aria-hidden />
            </IconButton>
          </div>
        ))}
      </div>
      <div className="mt-3 flex justify-between">
        <Button
          onClick={() => setLines([...lines, { currency: '', from: new Date().toISOString().slice(0, 10), rate: '' }])}
        >
          Add a rate
        </Button>
        <Button look="main" disabled={save.isPending} onClick={() => save.mutate()}>
          Save the rates
        </Button>
      </div>
      {save.isError && !wrong.length && (
        <p role="alert" className="mt-2 text-brick">
          {messageOf(save.error)}
        </p>
      )}
    </Sheet>
  );
}
