import type { SessionLine } from '@haycart/api';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useForm } from 'react-hook-form';
import { toast } from 'sonner';
import { ApiError, call } from '../api/client';
import { mySessionsQuery } from '../api/queries';
import { Button } from '../components/button';
import { PageHead, Sheet } from '../components/sheet';
import { Failed, Loading, messageOf } from '../components/status';
import { TextField } from '../components/text-field';
import { Time } from '../components/time';
import { browserName } from './browser-name';

/** One's own password, and where one is signed in. */
export function Account() {
  return (
    <div className="h-full overflow-y-auto p-5">
      <PageHead title="Your account" aside="your password, and where you are signed in" />
      <div className="grid max-w-[960px] items-start gap-5 lg:grid-cols-2">
        <Password />
        <Sessions />
      </div>
    </div>
  );
}

const EMPTY = { old: '', password: '', again: '' };

function Password() {
  const client = useQueryClient();
  const form = useForm({ defaultValues: EMPTY });
  const change = useMutation({
    mutationFn: ({ old, password }: typeof EMPTY) => call('PUT', '/account/password', { old, password }),
    onSuccess: async () => {
      form.reset();
      await client.invalidateQueries({ queryKey: mySessionsQuery.queryKey });
      toast('Your password is changed. Other browsers are signed out.');
    },
  });
  const refused = change.error instanceof ApiError ? (change.error.problem.errors ?? []) : [];
  const at = (place: string) => refused.find((one) => one.at === place)?.message;
  const { errors } = form.formState;
  return (
    <Sheet className="p-4">
      <h2 className="mb-3 text-base">Change password</h2>
      <form
        noValidate
        className="flex flex-col gap-4"
        onSubmit={(event) => void form.handleSubmit((values) => change.mutate(values))(event)}
      >
        <TextField
          label="Old password"
          type="password"
          autoComplete="current-password"
          error={errors.old?.message ?? at('/old')}
          {...form.register('old', { required: 'Type the old password.' })}
        />
        <TextField
          label="New password"
          type="password"
          autoComplete="new-password"
          help="At least 10 characters. Common passwords are refused."
          error={errors.password?.message ?? at('/password')}
          {...form.register('password', {
            minLength: { value: 10, message: 'At least 10 characters.' },
            required: 'Type a new password.',
          })}
        />
        <TextField
          label="New password again"
          type="password"
          autoComplete="new-password"
          error={errors.again?.message}
          {...form.register('again', {
            validate: (again, { password }) => again === password || 'The two are not the same.',
          })}
        />
        {change.isError && !refused.length && (
          <p role="alert" className="text-small text-brick">
            {messageOf(change.error)}
          </p>
        )}
        <div className="flex justify-end">
          <Button look="main" type="submit" disabled={change.isPending}>
            Change password
          </Button>
        </div>
      </form>
    </Sheet>
  );
}

function Sessions() {
  const sessions = useQuery(mySessionsQuery);
  const client = useQueryClient();
  const end = useMutation({
    mutationFn: (id: string | null) => call('DELETE', id ? `/account/sessions/${id}` : '/account/sessions'),
    onSuccess: () => client.invalidateQueries({ queryKey: mySessionsQuery.queryKey }),
    onError: (error) => toast.error(messageOf(error)),
  });
  return (
    <Sheet className="p-4">
      <div className="mb-3 flex items-center gap-2">
        <h2 className="flex-1 text-base">Where you are signed in</h2>
        {(sessions.data?.length ?? 0) > 1 && (
          <Button className="!h-7" onClick={() => end.mutate(null)} disabled={end.isPending}>
            Sign out everywhere else
          </Button>
        )}
      </div>
      {sessions.isPending ? (
        <Loading lines={3} />
      ) : sessions.isError ? (
        <Failed error={sessions.error} retry={() => void sessions.refetch()} />
      ) : (
        <ul>
          {sessions.data.map((session) => (
            <SessionItem key={session.id} session={session} end={() => end.mutate(session.id)} />
          ))}
        </ul>
      )}
    </Sheet>
  );
}

function SessionItem({ session, end }: { session: SessionLine; end: () => void }) {
  const name = browserName(session.browser);
  return (
    <li className="flex min-h-12 items-center gap-3 border-t border-hair py-2">
      <div className="min-w-0 flex-1">
        <b className="block truncate font-semibold">{name}</b>
        <span className="text-small text-muted">
          signed in <Time at={session.begunAt} />, used <Time at={session.usedAt} />
        </span>
      </div>
      {session.current ? (
        <span className="rounded-sm bg-straw-soft px-2 py-0.5 text-small">this browser</span>
      ) : (
        <Button className="!h-7" aria-label={`Sign out ${name}`} onClick={end}>
          Sign out
        </Button>
      )}
    </li>
  );
}
