import type { RouteShape } from '@haycart/api';
import { counted, routeChanges, whatItDoes, type Destination } from '@haycart/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '../api/client';
import { latestRouteQuery } from '../api/queries';
import { Button } from '../components/button';
import { Dialog } from '../components/dialog';
import { Points } from '../components/points';
import { sayDone } from '../components/say-done';
import { messageOf } from '../components/status';
import { TextField } from '../components/text-field';
import { CatchUp, countEarlier } from './catch-up';
import { useDraft } from './draft';
import { useCaseResults } from './saved-cases';

/** Publishing is one deliberate act that shows first what will change, and what stands in the way. */
export function PublishDialog({
  route,
  destination,
  intakes,
  open,
  close,
}: {
  route: RouteShape;
  destination: Destination;
  intakes: readonly { key: string; name: string }[];
  open: boolean;
  close: () => void;
}) {
  const client = useQueryClient();
  const { value: definition, save, told } = useDraft();
  const [note, setNote] = useState('');
  const [knowingly, setKnowingly] = useState(false);
  const [catchingUp, setCatchingUp] = useState(false);
  const otherwise = (useCaseResults(route.id) ?? []).filter(({ differences }) => differences.length);
  const publish = useMutation({
    mutationFn: async () => {
      await save();
      return call<{ version: number }>('POST', `/routes/${route.id}/publish`, {
        ...(note.trim() ? { note: note.trim() } : {}),
        ...(knowingly ? { knowingly } : {}),
      });
    },
    onSuccess: async ({ version }) => {
      told(await client.fetchQuery({ ...latestRouteQuery(route.id), staleTime: 0 }));
      void client.invalidateQueries({ queryKey: ['routes'] });
      const earlier = version === 1 ? await countEarlier(route.id).catch(() => 0) : 0;
      sayDone(
        `Version ${version} is live. The next submission follows it.`,
        earlier
          ? { label: `Process ${counted(earlier, 'earlier submission')}`, act: () => setCatchingUp(true) }
          : undefined,
      );
      setNote('');
      close();
    },
  });
  const blocking = route.problems.filter(({ severity }) => severity === 'error');
  const warnings = route.problems.filter(({ severity }) => severity === 'warning');
  const changes =
    route.published && definition ? routeChanges(route.published, definition, { destination, intakes }) : null;
  const nothing = changes !== null && changes.length === 0;
  if (catchingUp) return <CatchUp route={route} close={() => setCatchingUp(false)} />;
  return (
    <Dialog
      open={open}
      close={close}
      title={`Publish “${definition?.name ?? route.name}”`}
      description={
        route.version === null
          ? 'The route goes live; what arrives from now on is written.'
          : `Version ${route.version + 1} takes the place of version ${route.version}, from the next submission on.`
      }
    >
      <div className="flex flex-col gap-4">
        {blocking.length > 0 && (
          <Points title="Fix this first" state="failed" points={blocking.map(({ text }) => text)} />
        )}
        {changes && changes.length > 0 && <Points title="What changes" state="written" points={changes} />}
        {nothing && <p className="text-muted">The draft is the same as the version that runs.</p>}
        {!changes && !blocking.length && definition && (
          <Points title="What it does" state="written" points={whatItDoes(definition, { destination, intakes })} />
        )}
        {warnings.length > 0 && <Points title="Warnings" state="held" points={warnings.map(({ text }) => text)} />}
        {otherwise.length > 0 && (
          <div className="flex flex-col gap-2">
            <Points
              title="Saved cases with another result"
              state="failed"
              points={otherwise.map(
                ({ name, differences }) => `${name}: ${differences.map(({ text }) => text).join('; ')}`,
              )}
            />
            <label className="flex items-center gap-2">
              <input
                type="checkbox"
                className="size-4 accent-green"
                checked={knowingly}
                onChange={({ target }) => setKnowingly(target.checked)}
              />
              Publish all the same, knowing this
            </label>
          </div>
        )}
        {!blocking.length && !nothing && (
          <TextField
            label="Note for the others"
            placeholder="Why it changes"
            value={note}
            maxLength={500}
            onChange={({ target }) => setNote(target.value)}
          />
        )}
        {publish.isError && (
          <p role="alert" className="text-small text-brick">
            {messageOf(publish.error)}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={close}>Not now</Button>
          <Button
            look="main"
            disabled={blocking.length > 0 || nothing || publish.isPending || (otherwise.length > 0 && !knowingly)}
            onClick={() => publish.mutate()}
          >
            Publish version {(route.version ?? 0) + 1}
          </Button>
        </div>
      </div>
    </Dialog>
  );
}
