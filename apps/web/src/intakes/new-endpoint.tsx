import type { IntakeShape } from '@haycart/api';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useForm } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { call } from '../api/client';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { TextField } from '../components/text-field';

/** Makes an endpoint and leads to its page, where it listens. */
export function NewEndpoint({ open, close }: { open: boolean; close: () => void }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const form = useForm({ defaultValues: { name: '' } });
  const make = useMutation({
    mutationFn: ({ name }: { name: string }) =>
      call<IntakeShape>('POST', '/intakes', { kind: 'endpoint', name: name.trim() }),
    onSuccess: async ({ key }) => {
      await client.invalidateQueries({ queryKey: ['submissions', 'intake-lines'] });
      form.reset();
      close();
      void navigate(`/intakes/${key}`);
    },
  });
  return (
    <Dialog
      open={open}
      close={close}
      title="New endpoint"
      description="An address of its own, which another system posts to. You see what arrives on its page."
    >
      <form
        noValidate
        className="flex flex-col gap-4"
        onSubmit={(event) => void form.handleSubmit((values) => make.mutate(values))(event)}
      >
        <TextField
          label="Name"
          placeholder="Contact form of the shop"
          autoFocus
          error={form.formState.errors.name?.message}
          {...form.register('name', {
            validate: (name) => name.trim() !== '' || 'Give it a name that says where the submissions come from.',
          })}
        />
        <DialogActions error={make.error} close={close} action="Make it" disabled={make.isPending} />
      </form>
    </Dialog>
  );
}
