import type { CampaignCost, CampaignShape, CostsKept } from '@haycart/api';
import { readMoney } from '@haycart/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { ApiError, call } from '../../api/client';
import { campaignCostsQuery, destinationQuery } from '../../api/queries';
import { Button, IconButton } from '../../components/button';
import { money } from '../../components/format';
import { sayDone } from '../../components/say-done';
import { Sheet } from '../../components/sheet';
import { Failed, Loading, messageOf } from '../../components/status';
import { TextField } from '../../components/text-field';

const MONTH = new Intl.DateTimeFormat('en-GB', { month: 'long', year: 'numeric', timeZone: 'UTC' });

/** A campaign's costs by month, and a form to add more. */
export function CampaignCosts({ campaign }: { campaign: CampaignShape }) {
  const client = useQueryClient();
  const costs = useQuery(campaignCostsQuery(campaign.key));
  const told = () => client.invalidateQueries({ queryKey: ['sources'] });
  const failed = (error: unknown) => toast.error(messageOf(error));
  const restore = useMutation({
    mutationFn: (lost: readonly CampaignCost[]) =>
      call<CostsKept>('POST', '/campaign-costs', {
        costs: lost.map(({ day, ...cost }) => ({ campaign: campaign.code, from: day, to: day, ...cost })),
        over: 'replace',
      }),
    onSuccess: told,
    onError: failed,
  });
  const remove = useMutation({
    mutationFn: ({ month }: { month: string; lost: readonly CampaignCost[] }) =>
      call<{ days: number }>('DELETE', `/campaigns/${campaign.key}/costs?from=${month}-01&to=${lastOf(month)}`),
    onSuccess: async (_, { month, lost }) => {
      sayDone(`The costs of ${month} were removed.`, { label: 'Undo', act: () => restore.mutate(lost) });
      await told();
    },
    onError: failed,
  });
  return (
    <Sheet>
      <h2 className="px-3.5 pt-2.5 text-base leading-8">Costs</h2>
      <TypedCost campaign={campaign} />
      {costs.isPending ? (
        <Loading lines={3} />
      ) : costs.isError ? (
        <Failed error={costs.error} retry={() => void costs.refetch()} />
      ) : (
        costs.data.length > 0 && (
          <table className="w-full border-collapse border-t border-line" aria-label="Costs by month">
            <tbody>
              {monthsOf(costs.data).map(({ month, source, days, amount, currency }) => (
                <tr key={`${month} ${source} ${currency}`} className="h-9 border-b border-hair">
                  <th scope="row" className="px-3.5 text-left font-normal">
                    {MONTH.format(new Date(`${month}-01T00:00:00Z`))}
                    <span className="ml-2 text-small text-muted">
                      {days === 1 ? '1 day' : `${days} days`}
                      {source && `, ${source}`}
                    </span>
                  </th>
                  <td className="tabular px-2 text-right whitespace-nowrap">{money({ amount, currency })}</td>
                  <td className="w-10 pr-2 text-right">
                    <IconButton
                      label={`Remove the costs of ${month}`}
                      className="!size-7 text-muted"
                      disabled={remove.isPending}
                      onClick={() =>
                        remove.mutate({ month, lost: costs.data.filter(({ day }) => day.startsWith(month)) })
                      }
                    >
                      <Trash2 className="size-3.5" aria-hidden />
                    </IconButton>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )
      )}
    </Sheet>
  );
}

function TypedCost({ campaign }: { campaign: CampaignShape }) {
  const client = useQueryClient();
  const own = useQuery(destinationQuery).data?.defaultCurrency ?? 'GBP';
  const [from, setFrom] = useState('');
  const [to, setTo] = useState('');
  const [typed, setTyped] = useState('');
  const amount = readMoney(typed, own);
  const keep = useMutation({
    mutationFn: (over: 'refuse' | 'replace' | 'add') =>
      call<CostsKept>('POST', '/campaign-costs', {
        costs: [{ campaign: campaign.code, from, to: to || from, ...amount! }],
        over,
      }),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ['sources'] });
      setFrom('');
      setTo('');
      setTyped('');
    },
  });
  const isTaken = keep.error instanceof ApiError && keep.error.problem.status === 409;
  return (
    <form
      noValidate
      className="flex flex-col gap-3 px-3.5 pt-1 pb-3.5"
      onSubmit={(event) => {
        event.preventDefault();
        keep.mutate('refuse');
      }}
    >
      <div className="grid grid-cols-2 gap-3">
        <TextField label="From" type="date" value={from} onChange={({ target }) => setFrom(target.value)} />
        <TextField
          label="To (if longer)"
          type="date"
          value={to}
          min={from}
          onChange={({ target }) => setTo(target.value)}
        />
      </div>
      <TextField
        label="Cost"
        help="Spread equally over the days."
        placeholder="£ 1,200"
        value={typed}
        error={typed.trim() && (!amount || amount.amount < 0) ? 'Type an amount such as £ 1,200.' : undefined}
        onChange={({ target }) => setTyped(target.value)}
      />
      {keep.isError && (
        <p role="alert" className="text-small text-brick">
          {messageOf(keep.error)}
        </p>
      )}
      <div className="flex flex-wrap justify-end gap-2">
        {isTaken && (
          <>
            <Button disabled={keep.isPending} onClick={() => keep.mutate('add')}>
              Add to it
            </Button>
            <Button disabled={keep.isPending} onClick={() => keep.mutate('replace')}>
              Replace it
            </Button>
          </>
        )}
        <Button type="submit" look="main" disabled={!from || !amount || amount.amount < 0 || keep.isPending}>
          Add the cost
        </Button>
      </div>
    </form>
  );
}

interface MonthCost {
  month: string;
  source: string;
  currency: string;
  days: number;
  amount: number;
}

/** Costs by month, source and currency, the latest first. */
function monthsOf(costs: readonly CampaignCost[]): MonthCost[] {
  const months = new Map<string, MonthCost>();
  for (const { day, source, medium, amount, currency } of costs) {
    const at = { month: day.slice(0, 7), source: [source, medium].filter(Boolean).join(', '), currency };
    const key = JSON.stringify(at);
    const known = months.get(key) ?? { ...at, days: 0, amount: 0 };
    months.set(key, { ...known, days: known.days + 1, amount: known.amount + amount });
  }
  return [...months.values()].sort((one, other) => (one.month < other.month ? 1 : -1));
}

function lastOf(month: string): string {
  const [year, number] = month.split('-').map(Number);
  return new Date(Date.UTC(year!, number!, 0)).toISOString().slice(0, 10);
}
