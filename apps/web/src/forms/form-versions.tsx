import type { FormShape } from '@haycart/api';
import { useMutation } from '@tanstack/react-query';
import { toast } from 'sonner';
import { call } from '../api/client';
import { Button } from '../components/button';
import { Dialog } from '../components/dialog';
import { messageOf } from '../components/status';
import { Time } from '../components/time';
import { useFormDraft } from './draft';

/** Every version of a form, with who published it and why; each can be taken up again as the draft. */
export function FormVersions({ saved, close }: { saved: FormShape; close: () => void }) {
  const { save, open } = useFormDraft();
  const restore = useMutation({
    mutationFn: async (version: number) => {
      await save();
      return call<FormShape>('POST', `/forms/${saved.intake.key}/versions/${version}/restore`);
    },
    onSuccess: (form) => {
      open(form.intake.key, form.draft, form);
      toast('It is the draft now. Publish it to make it live.');
      close();
    },
    onError: (error) => toast.error(messageOf(error)),
  });
  return (
    <Dialog open close={close} title={`Versions of “${saved.intake.name}”`}>
      <ol className="flex flex-col">
        {saved.versions.map(({ version, publishedAt, publishedBy, note }) => (
          <li key={version} className="flex items-center gap-3 border-b border-hair py-1.5 last:border-b-0">
            <b className="w-8 flex-none tabular-nums">{version}</b>
            <span className="min-w-0 flex-1">
              {publishedBy}, <Time at={publishedAt} />
              {note && <span className="block text-muted">{note}</span>}
            </span>
            <Button disabled={restore.isPending} onClick={() => restore.mutate(version)}>
              Take it up again
            </Button>
          </li>
        ))}
        {!saved.versions.length && <li className="text-muted">It was never published.</li>}
      </ol>
    </Dialog>
  );
}
