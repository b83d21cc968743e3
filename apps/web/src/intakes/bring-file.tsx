import type { IntakeShape } from '@haycart/api';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { attach } from '../api/client';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';

/** Brings a file of people in: into an intake of its own, or into one that took files before. */
export function BringFile({ into, close }: { into?: IntakeShape; close: () => void }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [file, setFile] = useState<File | null>(null);
  const bring = useMutation({
    mutationFn: (chosen: File) => attach<{ intake: IntakeShape }>(`/sheets${into ? `?into=${into.key}` : ''}`, chosen),
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
      title={into ? `Another file for ${into.name}` : 'Bring a file of people in'}
      description="CSV with any delimiter and encoding, XLSX, JSON Lines, or vCard. It is kept as it is and read row by row; nothing is written before a route takes it."
    >
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          if (file) bring.mutate(file);
        }}
      >
        <label className="flex flex-col gap-1 font-semibold">
          File
          <input
            type="file"
            accept=".csv,.tsv,.txt,.xlsx,.jsonl,.ndjson,.vcf"
            onChange={({ target }) => setFile(target.files?.[0] ?? null)}
            className="rounded border border-faint bg-raised p-1.5 font-normal"
          />
        </label>
        <DialogActions
          error={bring.error}
          close={close}
          action={bring.isPending ? 'Bringing it in' : 'Bring it in'}
          disabled={!file || bring.isPending}
        />
      </form>
    </Dialog>
  );
}
