import type { RouteShape, RouteVersionLine } from '@haycart/api';
import { routeChanges, type RouteDefinition } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { useDestination } from '../api/destination';
import { intakeLinesQuery, routeVersionsQuery } from '../api/queries';
import { Button } from '../components/button';
import { Dialog } from '../components/dialog';
import { Points } from '../components/points';
import { Failed, Loading } from '../components/status';
import { SelectField } from '../components/text-field';
import { TakeBackDialog } from '../components/take-back';
import { Time } from '../components/time';
import { useDraft } from './draft';
import { ManyResult } from './many-result';
import { useComparison } from './use-comparison';

/** Every version of a route: who published it, when and why; any two compared; one taken up again or taken back. */
export function RouteVersions({ route, close }: { route: RouteShape; close: () => void }) {
  const versions = useQuery(routeVersionsQuery(route.id));
  const change = useDraft(({ change }) => change);
  const [takingBack, setTakingBack] = useState<number | null>(null);
  if (takingBack !== null)
    return (
      <TakeBackDialog
        title={`Take back all that version ${takingBack} wrote`}
        choice={{ route: route.id, version: takingBack }}
        close={() => setTakingBack(null)}
      />
    );
  const restore = (version: RouteVersionLine) => {
    change(() => version.definition);
    toast(`Version ${version.version} is the draft now. Publish it to make it run.`);
    close();
  };
  return (
    <Dialog open wide close={close} title={`Versions of “${route.name}”`}>
      {versions.isPending ? (
        <Loading lines={4} />
      ) : versions.isError ? (
        <Failed error={versions.error} retry={() => void versions.refetch()} />
      ) : (
        <div className="flex flex-col gap-5">
          <ol className="max-h-[240px] overflow-y-auto" tabIndex={0} aria-label="Versions">
            {versions.data.map((one) => (
              <li
                key={one.version}
                className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-hair py-1.5 last:border-b-0"
              >
                <b className="w-8 flex-none tabular-nums">{one.version}</b>
                <span className="min-w-0 flex-1">
                  {one.publishedBy}, <Time at={one.publishedAt} />
                  {one.note && <span className="block text-muted">{one.note}</span>}
                </span>
                <Button className="!h-7" onClick={() => restore(one)}>
                  Take it up again
                </Button>
                <Button className="!h-7" onClick={() => setTakingBack(one.version)}>
                  Take back…
                </Button>
              </li>
            ))}
            {!versions.data.length && <li className="text-muted">It was never published.</li>}
          </ol>
          {versions.data.length > 0 && <Compare route={route} versions={versions.data} />}
        </div>
      )}
    </Dialog>
  );
}

/** Any two versions, or a version and the draft: in sentences, and over a year of submissions. */
function Compare({ route, versions }: { route: RouteShape; versions: readonly RouteVersionLine[] }) {
  const draft = useDraft(({ value }) => value);
  const destination = useDestination();
  const intakes = useQuery(intakeLinesQuery).data;
  const [before, setBefore] = useState(versions[Math.min(1, versions.length - 1)]!.version);
  const [after, setAfter] = useState(0);
  const { found, begin, beginning, cancel } = useComparison(route.id);
  const definitionOf = (version: number): RouteDefinition | undefined =>
    version === 0 ? (draft ?? undefined) : versions.find((one) => one.version === version)?.definition;
  const [one, other] = [definitionOf(before), definitionOf(after)];
  const changes = one && other && destination && intakes ? routeChanges(one, other, { destination, intakes }) : [];
  return (
    <section aria-label="Compare two versions" className="flex flex-col gap-3">
      <div className="grid items-end gap-3 sm:grid-cols-[1fr_1fr_auto]">
        <SelectField label="Compare" value={before} onChange={({ target }) => setBefore(Number(target.value))}>
          {versions.map(({ version }) => (
            <option key={version} value={version}>
              version {version}
            </option>
          ))}
        </SelectField>
        <SelectField label="with" value={after} onChange={({ target }) => setAfter(Number(target.value))}>
          <option value={0}>the draft</option>
          {versions.map(({ version }) => (
            <option key={version} value={version}>
              version {version}
            </option>
          ))}
        </SelectField>
        <Button
          disabled={beginning || found?.state === 'working'}
          onClick={() => begin({ before, ...(after ? { after } : {}), last: 10_000 })}
        >
          Rehearse on past submissions
        </Button>
      </div>
      {changes.length > 0 ? (
        <Points title="What is different" state="written" points={changes} />
      ) : (
        <p className="text-muted">They say the same.</p>
      )}
      {found && <ManyResult found={found} cancel={cancel} />}
    </section>
  );
}
