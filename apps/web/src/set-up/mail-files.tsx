import type { LibraryFile } from '@haycart/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Paperclip, RefreshCw, Trash2 } from 'lucide-react';
import { useRef, useState, type ReactNode } from 'react';
import { toast } from 'sonner';
import { attach, call } from '../api/client';
import { mailFilesQuery } from '../api/queries';
import { AskOnce } from '../components/ask-once';
import { Button, IconButton } from '../components/button';
import { sized } from '../components/sent-file';
import { Sheet } from '../components/sheet';
import { Failed, Loading, messageOf } from '../components/status';

/** The files that mails can have attached, such as a price list. */
export function MailFiles() {
  const files = useQuery(mailFilesQuery);
  const client = useQueryClient();
  const [removing, setRemoving] = useState<LibraryFile | null>(null);
  const settled = {
    onSuccess: () => client.invalidateQueries({ queryKey: ['channels'] }),
    onError: (error: unknown) => toast.error(messageOf(error)),
  };
  const add = useMutation({ mutationFn: (file: File) => attach('/mail-files', file), ...settled });
  const replace = useMutation({
    mutationFn: ({ key, file }: { key: string; file: File }) => attach(`/mail-files/${key}`, file, {}, 'PUT'),
    ...settled,
  });
  const remove = useMutation({
    mutationFn: () => call('DELETE', `/mail-files/${removing!.key}`),
    onSuccess: async () => {
      setRemoving(null);
      await settled.onSuccess();
    },
  });
  return (
    <Sheet className="p-4">
      <header className="mb-2 flex flex-wrap items-center gap-3">
        <h2 className="mr-auto text-lg">Files for mails</h2>
        <ChooseFile label="File to add" take={(file) => add.mutate(file)}>
          {(choose) => (
            <Button disabled={add.isPending} onClick={choose}>
              <Paperclip className="size-4" aria-hidden /> {add.isPending ? 'Sending …' : 'Add a file'}
            </Button>
          )}
        </ChooseFile>
      </header>
      {files.isPending && <Loading lines={3} />}
      {files.isError && <Failed error={files.error} retry={() => void files.refetch()} />}
      {files.data?.length === 0 && (
        <p className="max-w-[60ch] text-muted">
          None yet. What is here can be attached by a route’s mail: a price list, terms, a leaflet; at most 10 MB each.
        </p>
      )}
      <ul>
        {files.data?.map((file) => (
          <li key={file.key} className="flex items-center gap-3 border-b border-hair py-1 last:border-b-0">
            <a
              href={`/api/v1/mail-files/${file.key}`}
              download
              className="min-w-0 flex-1 truncate text-slate hover:underline"
            >
              {file.name}
            </a>
            <span className="flex-none text-small text-muted">{sized(file.size)}</span>
            <ChooseFile
              label={`File in the place of ${file.name}`}
              take={(next) => replace.mutate({ key: file.key, file: next })}
            >
              {(choose) => (
                <IconButton label={`Replace ${file.name}`} className="!size-7 text-muted" onClick={choose}>
                  <RefreshCw className="size-3.5" aria-hidden />
                </IconButton>
              )}
            </ChooseFile>
            <IconButton label={`Remove ${file.name}`} className="!size-7 text-muted" onClick={() => setRemoving(file)}>
              <Trash2 className="size-3.5" aria-hidden />
            </IconButton>
          </li>
        ))}
      </ul>
      {removing && (
        <AskOnce
          title={`Remove ${removing.name}?`}
          loses="Mails that would have it attached are not sent any more, and say so."
          action="Remove"
          doing={remove}
          close={() => setRemoving(null)}
        />
      )}
    </Sheet>
  );
}

/** A button that lets one choose a file; the same file can be chosen twice. */
function ChooseFile({
  label,
  take,
  children,
}: {
  label: string;
  take: (file: File) => void;
  children: (choose: () => void) => ReactNode;
}) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      {children(() => input.current?.click())}
      <input
        ref={input}
        type="file"
        aria-label={label}
        className="sr-only"
        tabIndex={-1}
        onChange={({ target }) => {
          const file = target.files?.[0];
          if (file) take(file);
          target.value = '';
        }}
      />
    </>
  );
}
