import type { IntakeShape } from '@haycart/api';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { Encoding } from '@haycart/core';
import { useNavigate } from 'react-router';
import { attach } from '../api/client';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { FileLook } from './file-look';

/** Brings a file of people in: into an intake of its own, or into one that took files before. */
export function BringFile({ into, close }: { into?: IntakeShape; close: () => void }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [chosen, setChosen] = useState<{ file: File; sentAs: string } | null>(null);
  const [encoding, setEncoding] = useState<Encoding | null>(null);
  const bring = useMutation({
    mutationFn: ({ file, sentAs }: { file: File; sentAs: string }) => {
      const asked = new URLSearchParams({ ...(into ? { into: into.key } : {}), ...(encoding ? { encoding } : {}) });
      return attach<{ intake: IntakeShape }>(`/sheets?${asked}`, file, { 'idempotency-key': sentAs });
    },
    onSuccess: async ({ intake }) => {
      await client.invalidateQueries({ queryKey: ['submissions'] });
      close();
      void navigate(`/intakes/${intake.key}`);
    },
  });
  return (
    <Dialog
      open
      close={close}
      wide
      title={into ? `Another file for ${into.name}` : 'Import a file of people'}
      description="CSV with any delimiter and encoding, XLSX, JSON, or vCard. It is kept as it is and read row by row; nothing is written before a route takes it."
    >
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          if (chosen) bring.mutate(chosen);
        }}
      >
        <label className="flex flex-col gap-1 font-semibold">
          File
          <input
            type="file"
            accept=".csv,.tsv,.txt,.xlsx,.json,.jsonl,.ndjson,.vcf"
            onChange={({ target }) => {
              const file = target.files?.[0];
              setEncoding(null);
              // What is sent twice, by a second click or a broken connection, is brought in once.
              setChosen(file ? { file, sentAs: crypto.getRandomValues(new Uint32Array(4)).join('-') } : null);
            }}
            className="rounded border border-faint bg-raised p-1.5 font-normal"
          />
        </label>
        {chosen && <FileLook file={chosen.file} encoding={encoding} choose={setEncoding} />}
        <DialogActions
          error={bring.error}
          close={close}
          action={bring.isPending ? 'Bringing it in' : 'Bring it in'}
          disabled={!chosen || bring.isPending}
        />
      </form>
    </Dialog>
  );
}
