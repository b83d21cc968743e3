import type { SignInOptions } from '@haycart/api';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useForm } from 'react-hook-form';
import { call } from '../api/client';
import { sessionQuery, signInOptionsQuery } from '../api/queries';
import { CartMark } from '../components/cart-mark';
import { Button } from '../components/button';
import { Sheet } from '../components/sheet';
import { messageOf } from '../components/status';
import { TextField } from '../components/text-field';
import { FirstStart } from './first-start';

/** Signing in; at the very first start, making the first workspace instead. */
export function SignIn() {
  const options = useQuery(signInOptionsQuery);
  return (
    <main className="flex min-h-dvh flex-col items-center px-4 pt-[12vh] pb-10">
      <div className="mb-6 flex items-center gap-3">
        <CartMark className="w-12" />
        <h1 className="text-[30px] leading-9">Hay Cart</h1>
      </div>
      <Sheet className="w-full max-w-[400px] p-6">
        {options.data?.firstStart ? (
          <FirstStart />
        ) : (
          <>
            {options.data && options.data.demoPeople.length > 0 && <DemoPeople people={options.data.demoPeople} />}
            <PasswordForm />
          </>
        )}
      </Sheet>
    </main>
  );
}

function useEnter() {
  const client = useQueryClient();
  return () => client.invalidateQueries({ queryKey: sessionQuery.queryKey });
}

function DemoPeople({ people }: { people: SignInOptions['demoPeople'] }) {
  const enter = useEnter();
  const signIn = useMutation({
    mutationFn: (email: string) => call('POST', '/session/demo', { email }),
    onSuccess: enter,
  });
  return (
    <section className="mb-6 border-b border-line pb-6">
      <h2 className="mb-2 text-base">Sign in to the demo as</h2>
      <ul className="flex flex-col gap-2">
        {people.map(({ name, email, workspace, about }, index) => (
          <li key={email}>
            <button
              type="button"
              disabled={signIn.isPending}
              onClick={() => signIn.mutate(email)}
              className={`flex w-full items-baseline justify-between gap-3 rounded border-[1.5px] px-3 py-2 text-left ${index === 0 ? 'border-green bg-green text-on-green' : 'border-line bg-raised hover:border-muted'}`}
            >
              <b className="font-semibold">{name}</b>
              <span className={`text-small ${index === 0 ? '' : 'text-muted'}`}>
                {[about, workspace.split(' ')[0]].filter(Boolean).join(', ')}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {signIn.isError && (
        <p role="alert" className="mt-2 text-small text-brick">
          {messageOf(signIn.error)}
        </p>
      )}
    </section>
  );
}

function PasswordForm() {
  const enter = useEnter();
  const form = useForm({ defaultValues: { email: '', password: '' } });
  const signIn = useMutation({
    mutationFn: (values: { email: string; password: string }) => call('POST', '/session', values),
    onSuccess: enter,
  });
  const { errors } = form.formState;
  return (
    <form
      noValidate
      className="flex flex-col gap-4"
      onSubmit={(event) => void form.handleSubmit((values) => signIn.mutate(values))(event)}
    >
      <TextField
        label="E-mail"
        type="email"
        autoComplete="username"
        error={errors.email?.message}
        {...form.register('email', {
          required: 'Give your e-mail address.',
          pattern: { value: /^[^\s@]+@[^\s@]+$/, message: 'This is not an e-mail address.' },
        })}
      />
      <TextField
        label="Password"
        type="password"
        autoComplete="current-password"
        error={errors.password?.message}
        {...form.register('password', { required: 'Give your password.' })}
      />
      {signIn.isError && (
        <p role="alert" className="text-small text-brick">
          {messageOf(signIn.error)}
        </p>
      )}
      <Button type="submit" className="justify-center" disabled={signIn.isPending}>
        Sign in
      </Button>
    </form>
  );
}
