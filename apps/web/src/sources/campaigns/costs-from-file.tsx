import type { CampaignShape, CostsKept } from '@haycart/api';
import { counted, listInWords, plainName, readCostsCsv, refusedInWords, type CostsRead } from '@haycart/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Upload } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { call } from '../../api/client';
import { destinationQuery } from '../../api/queries';
import { Dialog } from '../../components/dialog';
import { DialogActions } from '../../components/dialog-actions';
import { FileButton } from '../../components/file-button';
import { money } from '../../components/format';

/** Imports costs from a CSV file. First it shows what the file contains. */
export function CostsFromFile({ campaigns }: { campaigns: readonly CampaignShape[] }) {
  const own = useQuery(destinationQuery).data?.defaultCurrency ?? 'GBP';
  const [read, setRead] = useState<CostsRead | null>(null);
  const choose = async (file: File) => {
    const found = readCostsCsv(await file.text(), own);
    if (typeof found === 'string') toast.error(found);
    else setRead(found);
  };
  return (
    <>
      <FileButton label="Costs from a CSV file" accept=".csv,.tsv,.txt,text/csv" choose={(file) => void choose(file)}>
        <Upload className="size-4" aria-hidden /> Costs from CSV
      </FileButton>
      {read && <CostsDialog read={read} campaigns={campaigns} close={() => setRead(null)} />}
    </>
  );
}

function CostsDialog({
  read: { rows, refused },
  campaigns,
  close,
}: {
  read: CostsRead;
  campaigns: readonly CampaignShape[];
  close: () => void;
}) {
  const client = useQueryClient();
  const known = new Set(campaigns.flatMap(({ name, code }) => [plainName(name), plainName(code)]));
  const unknown = [...new Set(rows.map(({ campaign }) => campaign))].filter((name) => !known.has(plainName(name)));
  const [adds, setAdds] = useState(true);
  const [over, setOver] = useState<'replace' | 'add'>('replace');
  const keep = useMutation({
    mutationFn: () =>
      call<CostsKept>('POST', '/campaign-costs', {
        costs: rows.map(({ row: _, ...cost }) => cost),
        over,
        addCampaigns: adds,
      }),
    onSuccess: async ({ days, replaced }) => {
      await client.invalidateQueries({ queryKey: ['sources'] });
      const before = replaced ? `; ${counted(replaced, 'day')} had one before` : '';
      toast(`${counted(days, 'day')} with a cost came from the file${before}.`);
      close();
    },
  });
  const days = rows.flatMap(({ from, to }) => [from, to]).sort();
  return (
    <Dialog open close={close} title="Costs from a file">
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          keep.mutate();
        }}
      >
        {rows.length > 0 ? (
          <p>
            {counted(rows.length, 'row')} from {days[0]} to {days.at(-1)}: <b>{listInWords(sumsOf(rows))}</b>
          </p>
        ) : (
          <p>No row of the file can be read.</p>
        )}
        {refused.length > 0 && <p className="text-brick">{refusedInWords(refused)}</p>}
        {unknown.length > 0 && (
          <label className="flex items-start gap-2">
            <input type="checkbox" className="mt-1" checked={adds} onChange={() => setAdds(!adds)} />
            <span>
              Add {counted(unknown.length, 'campaign')} to the register:{' '}
              <span className="text-muted">{unknown.slice(0, 8).join(', ')}</span>
            </span>
          </label>
        )}
        <fieldset className="flex flex-col gap-1">
          <legend className="mb-1 font-semibold">If a day already has a cost</legend>
          {(['replace', 'add'] as const).map((one) => (
            <label key={one} className="flex items-center gap-2">
              <input type="radio" name="over" checked={over === one} onChange={() => setOver(one)} />
              {one === 'replace' ? 'this one takes its place' : 'they are added up'}
            </label>
          ))}
        </fieldset>
        <DialogActions
          error={keep.error}
          close={close}
          action="Bring them"
          disabled={!rows.length || (unknown.length > 0 && !adds) || keep.isPending}
        />
      </form>
    </Dialog>
  );
}

/** What the rows add up to, by currency. */
function sumsOf(rows: CostsRead['rows']): string[] {
  const sums = new Map<string, number>();
  for (const { amount, currency } of rows) sums.set(currency, (sums.get(currency) ?? 0) + amount);
  return [...sums].map(([currency, amount]) => money({ amount, currency }));
}
