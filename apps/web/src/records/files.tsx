import type { FileShape, RecordShape } from '@haycart/api';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Paperclip, Trash2 } from 'lucide-react';
import { useRef } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { attach, call } from '../api/client';
import { PLURALS } from '../api/record-kinds';
import { Button, IconButton } from '../components/button';
import { Sheet } from '../components/sheet';
import { sentFile, sized } from '../components/sent-file';
import { messageOf } from '../components/status';
import { Time } from '../components/time';

/** Files kept with a record, and those that came with its submissions. */
export function Files({ record, files }: { record: RecordShape; files: readonly FileShape[] }) {
  const input = useRef<HTMLInputElement>(null);
  const client = useQueryClient();
  const on = `/${PLURALS[record.kind]}/${record.id}/files`;
  const settled = {
    onSuccess: () => client.invalidateQueries({ queryKey: ['records', 'sheet'] }),
    onError: (error: unknown) => toast.error(messageOf(error)),
  };
  const add = useMutation({ mutationFn: (file: File) => attach(on, file), ...settled });
  const remove = useMutation({ mutationFn: (id: string) => call('DELETE', `${on}/${id}`), ...settled });
  return (
    <Sheet className="px-4 py-3">
      <header className="flex items-center">
        <h2 className="mr-auto text-base">Files</h2>
        <Button className="!h-7" disabled={add.isPending} onClick={() => input.current?.click()}>
          <Paperclip className="size-3.5" aria-hidden /> {add.isPending ? 'Sending …' : 'Add a file'}
        </Button>
        <input
          ref={input}
          type="file"
          aria-label="File to add"
          className="sr-only"
          tabIndex={-1}
          onChange={({ target }) => {
            const file = target.files?.[0];
            if (file) add.mutate(file);
            target.value = '';
          }}
        />
      </header>
      {files.length > 0 && (
        <ul className="mt-1">
          {files.map(({ id, name, size, by, at, submission }) => (
            <li key={id} className="flex items-center gap-3 border-b border-hair py-0.5 last:border-b-0">
              <a
                href={submission ? sentFile(submission, id) : `/api/v1${on}/${id}`}
                download
                className="min-w-0 flex-1 truncate text-slate hover:underline"
              >
                {name}
              </a>
              <span className="flex-none text-small text-muted">
                {sized(size)},{' '}
                {submission ? (
                  <Link to={`/submissions?open=${submission}`} className="text-slate hover:underline">
                    sent{by && ` by ${by}`}
                  </Link>
                ) : (
                  by
                )}
              </span>
              <Time at={at} className="text-muted" />
              {submission ? (
                <span className="size-7" />
              ) : (
                <IconButton
                  label={`Remove ${name} for good`}
                  className="!size-7 text-muted"
                  onClick={() => remove.mutate(id)}
                >
                  <Trash2 className="size-3.5" aria-hidden />
                </IconButton>
              )}
            </li>
          ))}
        </ul>
      )}
    </Sheet>
  );
}
