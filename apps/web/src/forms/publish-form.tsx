import type { FormShape, RouteLine } from '@haycart/api';
import { questionsOf, type Destination, type FormDefinition, type FormRouteWish } from '@haycart/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { call } from '../api/client';
import { formQuery, routesQuery } from '../api/queries';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { Points } from '../components/points';
import { percent } from '../components/format';
import { Loading } from '../components/status';
import { SelectField, TextField } from '../components/text-field';
import { useFormDraft } from './draft';
import { RouteOffer } from './route-offer';

/** How many of the visitors may see a version that is on trial. */
const SHARES = [0.5, 0.25, 0.1];

/** Publishing a form: what changes, what stands in the way, and the route that follows from it if it has none yet. */
export function PublishForm({
  form,
  saved,
  destination,
  close,
}: {
  form: FormDefinition;
  saved: FormShape;
  destination: Destination;
  close: () => void;
}) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const { save, told } = useFormDraft();
  const [note, setNote] = useState('');
  const [share, setShare] = useState('');
  const routes = useQuery(routesQuery).data;
  const taking = (routes ?? []).filter((route: RouteLine) =>
    route.from.some((intake) => intake.key === saved.intake.key),
  );
  const offers = routes !== undefined && !taking.length && questionsOf(form).some(({ feeds }) => feeds);
  const [wish, setWish] = useState<FormRouteWish | null | undefined>(undefined);
  const wanted = offers ? (wish === undefined ? (saved.wish ?? firstWish(form, destination)) : wish) : null;
  const { key, name, version, trial, state } = saved.intake;
  const publish = useMutation({
    mutationFn: async () => {
      await save();
      return call<{ version: number; route: string | null }>('POST', `/forms/${key}/publish`, {
        ...(note.trim() ? { note: note.trim() } : {}),
        ...(wanted ? { route: wanted } : {}),
        ...(share ? { share: Number(share) } : {}),
      });
    },
    onSuccess: async (done) => {
      told(await client.fetchQuery({ ...formQuery(key), staleTime: 0 }));
      void client.invalidateQueries({ queryKey: ['routes'] });
      void client.invalidateQueries({ queryKey: ['submissions', 'intake-lines'] });
      toast.success(
        `Version ${done.version} is live.`,
        done.route
          ? { action: { label: 'Open its route', onClick: () => void navigate(`/routes/${done.route}`) } }
          : {},
      );
      close();
    },
  });
  const errors = saved.problems.filter(({ severity }) => severity === 'error');
  const warnings = saved.problems.filter(({ severity }) => severity === 'warning');
  const nothing = version > 0 && !saved.changes.length && !wanted;
  return (
    <Dialog
      open
      wide
      close={close}
      title={`Publish “${name}”`}
      description={
        version === 0
          ? 'The form can be reached from then on.'
          : share
            ? `Version ${version + 1} and version ${version} share the visitors, until one of them is kept.`
            : `Version ${version + 1} takes the place of version ${version}${trial ? ` and version ${trial.version}` : ''}, on all pages at once.`
      }
    >
      {/* All of it comes at once, so that nothing moves under a hand that is about to publish. */}
      {routes === undefined && <Loading lines={4} />}
      <form
        className={routes === undefined ? 'hidden' : 'flex flex-col gap-4'}
        onSubmit={(event) => {
          event.preventDefault();
          publish.mutate();
        }}
      >
        {errors.length > 0 && <Points title="Fix this first" state="failed" points={errors.map(({ text }) => text)} />}
        {saved.changes.length > 0 && <Points title="What changes" state="written" points={saved.changes} />}
        {warnings.length > 0 && <Points title="Warnings" state="held" points={warnings.map(({ text }) => text)} />}
        {taking.length > 0 && (
          <p className="text-muted">
            What it brings goes through {taking.map((route) => `“${route.name}”`).join(' and ')}.
          </p>
        )}
        {offers && !errors.length && (
          <RouteOffer intake={saved.intake} form={form} destination={destination} wish={wanted} change={setWish} />
        )}
        {version > 0 && state === 'live' && !errors.length && !nothing && (
          <SelectField
            label="Who sees it"
            help="Two versions can share the visitors by chance; “What happens at it” tells which of them more people send."
            value={share}
            onChange={({ target }) => setShare(target.value)}
          >
            <option value="">everybody</option>
            {SHARES.map((one) => (
              <option key={one} value={one}>
                {percent(one)} of the visitors, the others go on with version {version}
              </option>
            ))}
          </SelectField>
        )}
        {version > 0 && !errors.length && !nothing && (
          <TextField
            label="Note for the others"
            placeholder="Why it changes"
            value={note}
            maxLength={500}
            onChange={({ target }) => setNote(target.value)}
          />
        )}
        {nothing && <p className="text-muted">The draft is the same as what visitors see.</p>}
        <DialogActions
          error={publish.error}
          close={close}
          action={`Publish version ${version + 1}`}
          disabled={errors.length > 0 || nothing || publish.isPending}
        />
      </form>
    </Dialog>
  );
}

/** Where a form’s enquiries most likely begin: where its questions point, else as the workspace handles enquiries. */
function firstWish(form: FormDefinition, { pipelines, leadHandling }: Destination): FormRouteWish {
  const asks = (record: string) => questionsOf(form).some(({ feeds }) => feeds?.record === record);
  const record = asks('deal') ? 'deal' : asks('lead') ? 'lead' : leadHandling === 'leads' ? null : 'deal';
  const pipeline = pipelines.find((one) => one.record === record);
  const stage = pipeline?.defaultStage ?? pipeline?.stages.find(({ state }) => state === 'open')?.key;
  if (!record || !pipeline || !stage || (record === 'deal' && !asks('deal'))) return {};
  return { place: { record, pipeline: pipeline.key, stage, again: 'update' } };
}
