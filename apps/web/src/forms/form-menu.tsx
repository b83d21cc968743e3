import type { FormShape, IntakeShape } from '@haycart/api';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { DropdownMenu } from 'radix-ui';
import { Check, Ellipsis } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { call } from '../api/client';
import { formQuery } from '../api/queries';
import { IconButton } from '../components/button';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { IntakeSourceDialog } from '../components/intake-source';
import { messageOf } from '../components/status';
import { TextField } from '../components/text-field';
import { useFormDraft } from './draft';
import { FormFigures } from './form-figures';
import { FormVersions } from './form-versions';

const ITEM = 'cursor-pointer rounded px-2 py-1 outline-none data-[highlighted]:bg-straw-soft';

/** What is done with a form as a whole, besides building it. */
export function FormMenu({ saved }: { saved: FormShape }) {
  const { intake } = saved;
  const navigate = useNavigate();
  const [asking, setAsking] = useState<'rename' | 'copy' | 'close' | 'figures' | 'versions' | 'source' | null>(null);
  const change = useIntakeChange(intake);
  const done = () => setAsking(null);
  return (
    <>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger asChild>
          <IconButton label="More about this form">
            <Ellipsis className="size-4" aria-hidden />
          </IconButton>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="end"
            sideOffset={4}
            className="z-30 min-w-48 rounded border border-line bg-raised p-1 shadow-xl"
          >
            <DropdownMenu.Item className={ITEM} onSelect={() => setAsking('figures')}>
              What happens at it
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={() => void navigate(`/intakes/${intake.key}/arrives`)}>
              What arrives
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={() => void navigate(`/submissions?intake=${intake.key}`)}>
              Its submissions
            </DropdownMenu.Item>
            {intake.state === 'live' && (
              <DropdownMenu.Item className={ITEM} onSelect={() => void navigate(`/intakes/${intake.key}/entry`)}>
                Quick entry
              </DropdownMenu.Item>
            )}
            <DropdownMenu.Item className={ITEM} onSelect={() => setAsking('versions')}>
              Versions
            </DropdownMenu.Item>
            <DropdownMenu.Separator className="my-1 border-t border-line" />
            <DropdownMenu.CheckboxItem
              className={`${ITEM} flex items-center justify-between gap-3`}
              checked={intake.forColleagues}
              onCheckedChange={(forColleagues) => change.mutate({ forColleagues })}
            >
              For colleagues only
              <DropdownMenu.ItemIndicator>
                <Check className="size-4 text-green" aria-hidden />
              </DropdownMenu.ItemIndicator>
            </DropdownMenu.CheckboxItem>
            <DropdownMenu.Item className={ITEM} onSelect={() => setAsking('source')}>
              Source…
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={() => setAsking('rename')}>
              Rename…
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={() => setAsking('copy')}>
              Copy…
            </DropdownMenu.Item>
            {intake.state === 'live' && (
              <DropdownMenu.Item className={ITEM} onSelect={() => setAsking('close')}>
                Close…
              </DropdownMenu.Item>
            )}
            {intake.state === 'closed' && (
              <DropdownMenu.Item className={ITEM} onSelect={() => change.mutate({ state: 'live', archived: false })}>
                Open again
              </DropdownMenu.Item>
            )}
            {intake.state !== 'live' && (
              <DropdownMenu.Item className={ITEM} onSelect={() => change.mutate({ archived: !intake.archived })}>
                {intake.archived ? 'Bring back to the list' : 'Archive'}
              </DropdownMenu.Item>
            )}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {asking === 'figures' && <FormFigures intake={intake} close={done} />}
      {asking === 'source' && (
        <IntakeSourceDialog intake={intake} save={(source) => change.mutateAsync({ source })} close={done} />
      )}
      {asking === 'versions' && <FormVersions saved={saved} close={done} />}
      {asking === 'rename' && (
        <AskText
          title="Rename the form"
          label="Name"
          help="For you and your colleagues. Its address and what visitors read stay as they are."
          begin={intake.name}
          action="Rename it"
          run={(name) => change.mutateAsync({ name })}
          close={done}
        />
      )}
      {asking === 'close' && (
        <AskText
          title="Close the form"
          label="What it says from now on"
          help="Links and embedded forms show this instead of the questions. What is being filled in just now cannot be sent any more."
          begin="This form is closed and takes no answers any more."
          action="Close it"
          run={(closedMessage) => change.mutateAsync({ state: 'closed', closedMessage })}
          close={done}
        />
      )}
      {asking === 'copy' && (
        <AskText
          title="Copy the form"
          label="Name of the copy"
          begin={`${intake.name}, copy`}
          action="Copy it"
          run={async (name) => {
            const copy = await call<IntakeShape>('POST', '/forms', { name, copyOf: intake.key });
            void navigate(`/intakes/${copy.key}/form`);
          }}
          close={done}
        />
      )}
    </>
  );
}

function useIntakeChange({ key }: IntakeShape) {
  const client = useQueryClient();
  const told = useFormDraft(({ told }) => told);
  return useMutation({
    mutationFn: (change: object) => call<IntakeShape>('PATCH', `/intakes/${key}`, change),
    onSuccess: async () => {
      told(await client.fetchQuery({ ...formQuery(key), staleTime: 0 }));
      void client.invalidateQueries({ queryKey: ['submissions', 'intake-lines'] });
    },
    onError: (error) => toast.error(messageOf(error)),
  });
}

function AskText({
  title,
  label,
  help,
  begin,
  action,
  run,
  close,
}: {
  title: string;
  label: string;
  help?: string;
  begin: string;
  action: string;
  run: (text: string) => Promise<unknown>;
  close: () => void;
}) {
  const [text, setText] = useState(begin);
  const doing = useMutation({ mutationFn: () => run(text.trim()), onSuccess: close });
  return (
    <Dialog open close={close} title={title}>
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          doing.mutate();
        }}
      >
        <TextField
          label={label}
          {...(help ? { help } : {})}
          autoFocus
          maxLength={500}
          value={text}
          onChange={({ target }) => setText(target.value)}
        />
        <DialogActions error={doing.error} close={close} action={action} disabled={!text.trim() || doing.isPending} />
      </form>
    </Dialog>
  );
}
