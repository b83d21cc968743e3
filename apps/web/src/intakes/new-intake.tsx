import type { IntakeShape } from '@haycart/api';
import type { IntakeKind } from '@haycart/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useForm } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { call } from '../api/client';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { TextField } from '../components/text-field';

interface Typed {
  name: string;
  settings: Record<string, string>;
}

/** Makes an intake of a kind that is made by its name and settings, and leads to its page. */
export function NewIntake({ kind, close }: { kind: IntakeKind; close: () => void }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const form = useForm<Typed>({ defaultValues: { name: '', settings: {} } });
  const make = useMutation({
    mutationFn: ({ name, settings }: Typed) =>
      call<IntakeShape>('POST', '/intakes', { kind: kind.kind, name: name.trim(), settings }),
    onSuccess: async ({ key }) => {
      await client.invalidateQueries({ queryKey: ['submissions', 'intake-lines'] });
      close();
      void navigate(`/intakes/${key}`);
    },
  });
  return (
    <Dialog open close={close} title={`New ${kind.label}`} description={kind.about}>
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
        {kind.asks.map(({ key, label, placeholder }) => (
          <TextField
            key={key}
            label={label}
            placeholder={placeholder}
            error={form.formState.errors.settings?.[key]?.message}
            {...form.register(`settings.${key}`, { validate: (text) => text.trim() !== '' || 'This is needed.' })}
          />
        ))}
        <DialogActions error={make.error} close={close} action="Make it" disabled={make.isPending} />
      </form>
    </Dialog>
  );
}
