import { useMutation, useQuery } from '@tanstack/react-query';
import { useForm } from 'react-hook-form';
import { useParams } from 'react-router';
import { ApiError, call, get } from '../api/client';
import { Button } from '../components/button';
import { CartMark } from '../components/cart-mark';
import { Sheet } from '../components/sheet';
import { Failed, Loading, messageOf } from '../components/status';
import { TextField } from '../components/text-field';

/** Setting one's password by a link that works once. */
export function Welcome() {
  const { secret = '' } = useParams();
  const whose = useQuery({
    queryKey: ['link', secret],
    queryFn: get<{ name: string; email: string }>(`/session/link/${encodeURIComponent(secret)}`),
    retry: false,
    staleTime: Infinity,
  });
  return (
    <main className="flex min-h-dvh flex-col items-center px-4 pt-[12vh] pb-10">
      <div className="mb-6 flex items-center gap-3">
        <CartMark className="w-12" />
        <h1 className="text-[30px] leading-9">Hay Cart</h1>
      </div>
      <Sheet className="w-full max-w-[400px] p-6">
        {whose.isPending ? (
          <Loading lines={4} />
        ) : whose.isError ? (
          <Failed error={whose.error} />
        ) : (
          <ChoosePassword secret={secret} {...whose.data} />
        )}
      </Sheet>
    </main>
  );
}

function ChoosePassword({ secret, name, email }: { secret: string; name: string; email: string }) {
  const form = useForm({ defaultValues: { password: '', again: '' } });
  const set = useMutation({
    mutationFn: ({ password }: { password: string }) =>
      call('POST', `/session/link/${encodeURIComponent(secret)}`, { password }),
    onSuccess: () => window.location.assign('/'),
  });
  const refused = set.error instanceof ApiError ? set.error.problem.errors?.[0]?.message : undefined;
  const { errors } = form.formState;
  return (
    <form
      noValidate
      className="flex flex-col gap-4"
      onSubmit={(event) => void form.handleSubmit((values) => set.mutate(values))(event)}
    >
      <div>
        <h2 className="text-base">Welcome, {name}</h2>
        <p className="text-muted">Choose the password with which you sign in as {email}.</p>
      </div>
      <input type="hidden" autoComplete="username" value={email} readOnly />
      <TextField
        label="Password"
        type="password"
        autoComplete="new-password"
        help="At least 10 characters. Common passwords are refused."
        error={errors.password?.message ?? refused}
        {...form.register('password', {
          minLength: { value: 10, message: 'At least 10 characters.' },
          required: 'Type a password.',
        })}
      />
      <TextField
        label="Password again"
        type="password"
        autoComplete="new-password"
        error={errors.again?.message}
        {...form.register('again', {
          validate: (again, { password }) => again === password || 'The two are not the same.',
        })}
      />
      {set.isError && !refused && (
        <p role="alert" className="text-small text-brick">
          {messageOf(set.error)}
        </p>
      )}
      <Button look="main" type="submit" className="justify-center" disabled={set.isPending}>
        Set the password and sign in
      </Button>
    </form>
  );
}
