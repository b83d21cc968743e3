import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useForm } from 'react-hook-form';
import { call } from '../api/client';
import { sessionQuery } from '../api/queries';
import { Button } from '../components/button';
import { messageOf } from '../components/status';
import { TextField } from '../components/text-field';

const EMPTY = { code: '', workspace: '', country: 'GB', currency: 'GBP', name: '', email: '', password: '' };

/** Makes the first workspace and its first person, with the code that was printed at the start. */
export function FirstStart() {
  const client = useQueryClient();
  const form = useForm({ defaultValues: EMPTY });
  const make = useMutation({
    mutationFn: (values: typeof EMPTY) => call('POST', '/session/first', values),
    onSuccess: () => client.invalidateQueries({ queryKey: sessionQuery.queryKey }),
  });
  const { errors } = form.formState;
  const needed = 'This is needed.';
  return (
    <form
      noValidate
      className="flex flex-col gap-4"
      onSubmit={(event) => void form.handleSubmit((values) => make.mutate(values))(event)}
    >
      <h2 className="text-base">Make the first workspace</h2>
      <TextField
        label="Set-up code"
        help="It was printed where Hay Cart was started."
        error={errors.code?.message}
        {...form.register('code', { required: needed })}
      />
      <TextField
        label="Company"
        error={errors.workspace?.message}
        {...form.register('workspace', { required: needed, minLength: { value: 2, message: 'At least two letters.' } })}
      />
      <div className="grid grid-cols-2 gap-3">
        <TextField
          label="Country"
          help="Two letters, such as GB"
          maxLength={2}
          error={errors.country?.message}
          {...form.register('country', {
            required: needed,
            pattern: { value: /^[a-z]{2}$/i, message: 'Two letters.' },
          })}
        />
        <TextField
          label="Currency"
          help="Three letters, such as GBP"
          maxLength={3}
          error={errors.currency?.message}
          {...form.register('currency', {
            required: needed,
            pattern: { value: /^[a-z]{3}$/i, message: 'Three letters.' },
          })}
        />
      </div>
      <TextField
        label="Your name"
        autoComplete="name"
        error={errors.name?.message}
        {...form.register('name', { required: needed })}
      />
      <TextField
        label="Your e-mail"
        type="email"
        autoComplete="username"
        error={errors.email?.message}
        {...form.register('email', { required: needed })}
      />
      <TextField
        label="Password"
        type="password"
        autoComplete="new-password"
        help="At least 10 characters"
        error={errors.password?.message}
        {...form.register('password', {
          required: needed,
          minLength: { value: 10, message: 'At least 10 characters.' },
        })}
      />
      {make.isError && (
        <p role="alert" className="text-small text-brick">
          {messageOf(make.error)}
        </p>
      )}
      <Button look="main" type="submit" className="justify-center" disabled={make.isPending}>
        Start
      </Button>
    </form>
  );
}
