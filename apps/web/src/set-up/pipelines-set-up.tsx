import type { PipelineShape, PlaceUse } from '@haycart/api';
import { counted } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { useParams } from 'react-router';
import { pipelinesQuery, placeUsesQuery, setUpChangesQuery } from '../api/queries';
import { useWords } from '../api/words';
import { Button } from '../components/button';
import { Sheet } from '../components/sheet';
import { Empty, Failed, Loading } from '../components/status';
import { Time } from '../components/time';
import { NewPipeline } from './new-pipeline';
import { PipelineEditor } from './pipeline-editor';
import { SetUpPage } from './set-up-page';
import { SideLink } from './side-link';
import { useRemoval } from './use-pipeline-changes';

/** Prepares where deals stand: the pipelines and their stages. */
export function PipelinesSetUp() {
  const { key } = useParams();
  const pipelines = useQuery(pipelinesQuery);
  const uses = useQuery(placeUsesQuery).data ?? [];
  const words = useWords();
  const [making, setMaking] = useState(false);
  if (pipelines.isPending) return <Loading />;
  if (pipelines.isError) return <Failed error={pipelines.error} retry={() => void pipelines.refetch()} />;
  const all = pipelines.data;
  const chosen = all.find((one) => one.key === key) ?? all[0];
  return (
    <SetUpPage
      about={`where ${words.many('deal')} and leads stand, and how they go on`}
      action={
        <Button look="main" onClick={() => setMaking(true)}>
          <Plus className="size-4" aria-hidden /> New pipeline
        </Button>
      }
      list="Pipelines"
      side={all.map((pipeline) => (
        <PipelineLink key={pipeline.id} pipeline={pipeline} uses={uses} chosen={pipeline === chosen} />
      ))}
    >
      {chosen ? (
        <PipelineEditor key={chosen.id} pipeline={chosen} all={all} uses={uses} />
      ) : (
        <Sheet>
          <Empty title="There is no pipeline yet">
            <Button look="main" onClick={() => setMaking(true)}>
              Make the first one
            </Button>
          </Empty>
        </Sheet>
      )}
      <Removals />
      <NewPipeline open={making} close={() => setMaking(false)} />
    </SetUpPage>
  );
}

function PipelineLink({
  pipeline: { key, name, record, stages },
  uses,
  chosen,
}: {
  pipeline: PipelineShape;
  uses: readonly PlaceUse[];
  chosen: boolean;
}) {
  const words = useWords();
  const open = new Set(stages.filter(({ state }) => state === 'open').map((stage) => stage.key));
  const inIt = uses
    .filter((use) => use.pipeline === key && open.has(use.stage))
    .reduce((sum, { records }) => sum + records, 0);
  return (
    <SideLink to={`/set-up/pipelines/${key}`} name={name} chosen={chosen}>
      {counted(stages.length, 'stage')}, {words.counted(inIt, record)} open
    </SideLink>
  );
}

/** What was removed lately, each of which can be taken back. */
function Removals() {
  const changes = useQuery(setUpChangesQuery);
  const { takeBack } = useRemoval();
  if (!changes.data?.length) return null;
  return (
    <Sheet className="px-4 py-3">
      <h2 className="mb-1 text-base">Removed lately</h2>
      <ul>
        {changes.data.map(({ id, at, by, text, takenBackAt }) => (
          <li key={id} className="flex items-center gap-3 border-b border-hair py-1.5 last:border-b-0">
            <span className={`min-w-0 flex-1 ${takenBackAt ? 'text-muted line-through' : ''}`}>{text}</span>
            <span className="flex-none text-small text-muted">
              {by}, <Time at={at} />
            </span>
            {takenBackAt ? (
              <span className="flex-none text-small text-muted">taken back</span>
            ) : (
              <Button disabled={takeBack.isPending} onClick={() => takeBack.mutate(id)}>
                Take back
              </Button>
            )}
          </li>
        ))}
      </ul>
    </Sheet>
  );
}
