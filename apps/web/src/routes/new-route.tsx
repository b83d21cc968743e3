import type { RouteShape } from '@haycart/api';
import { starterRoute } from '@haycart/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useQueryClient } from '@tanstack/react-query';
import { useForm } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { call } from '../api/client';
import { profileQuery, intakeLinesQuery } from '../api/queries';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { SelectField, TextField } from '../components/text-field';
import { useDestination } from '../api/destination';

/** Makes a draft from what an intake has sent so far, and leads to its sheet. */
export function NewRoute({ open, close }: { open: boolean; close: () => void }) {
  const intakes = useQuery(intakeLinesQuery);
  const destination = useDestination();
  const client = useQueryClient();
  const navigate = useNavigate();
  const form = useForm({ defaultValues: { name: '', intake: '' } });
  const make = useMutation({
    mutationFn: async ({ name, intake }: { name: string; intake: string }) => {
      const { fields } = await client.fetchQuery(profileQuery(intake));
      return call<RouteShape>('POST', '/routes', {
        definition: starterRoute(
          name.trim(),
          intake,
          fields.map(({ key }) => key),
          destination!,
        ),
      });
    },
    onSuccess: ({ id }) => {
      close();
      void navigate(`/routes/${id}`);
    },
  });
  const { errors } = form.formState;
  return (
    <Dialog
      open={open}
      close={close}
      title="New route"
      description="It starts as a draft, fed by what the intake has sent so far. Nothing is written before you publish it."
    >
      <form
        noValidate
        className="flex flex-col gap-4"
        onSubmit={(event) => void form.handleSubmit((values) => make.mutate(values))(event)}
      >
        <SelectField
          label="Takes from"
          error={errors.intake?.message}
          {...form.register('intake', { required: 'Choose where the submissions come from.' })}
        >
          <option value="">Choose an intake</option>
          {intakes.data?.map(({ key, name }) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </SelectField>
        <TextField
          label="Name"
          placeholder="Show stand enquiries"
          error={errors.name?.message}
          {...form.register('name', { validate: (name) => name.trim() !== '' || 'Give it a name.' })}
        />
        <DialogActions
          error={make.error}
          close={close}
          action="Make the draft"
          disabled={make.isPending || !destination}
        />
      </form>
    </Dialog>
  );
}
