import type { IntakeLine, RouteShape } from '@haycart/api';
import { describeRoute, type Problem, type RouteDefinition } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useState, useMemo } from 'react';
import { useParams } from 'react-router';
import { toast } from 'sonner';
import { intakeLinesQuery, latestRouteQuery, routeQuery, sessionQuery } from '../api/queries';
import { Button } from '../components/button';
import { PageHead } from '../components/sheet';
import { Failed, Loading, messageOf } from '../components/status';
import { UndoButtons } from '../components/undo-buttons';
import { useDestination } from '../api/destination';
import { useDraft } from './draft';
import { FollowUpSection } from './follow-ups/follow-up-section';
import { Mapping } from './mapping';
import { OnlyWhen } from './only-when';
import { OfferedQuestions } from './offered-questions';
import { PlaceSection } from './place';
import { PublishDialog } from './publish-dialog';
import { Recognise } from './recognise';
import { Rehearsal } from './rehearsal';
import { RouteState } from './route-mark';
import { RouteMenu } from './route-menu';
import { AlsoHere } from './also-here';
import { PauseOrResume } from './pause-or-resume';
import { Section } from './section';
import { useSuggestions } from './suggestions';
import { TakesFrom } from './takes-from';
import { useRehearsal } from './use-rehearsal';

/** The page on which one route is read and edited, with its rehearsal at the right. */
export function RouteSheet() {
  const { id = '' } = useParams();
  const route = useQuery(routeQuery(id));
  const open = useDraft(({ open }) => open);
  const ready = useDraft((draft) => draft.id === id);
  useEffect(() => {
    if (route.data && useDraft.getState().id !== route.data.id) open(route.data.id, route.data.draft, route.data);
  }, [route.data, open]);
  useOthersChanges(id, ready ? route.data : undefined);
  useEffect(
    () => () => {
      void useDraft.getState().save();
      useDraft.setState({ id: null });
    },
    [id],
  );
  if (route.isError) return <Failed error={route.error} retry={() => void route.refetch()} />;
  if (!ready) return <Loading />;
  return <Sheet />;
}

/** Shows what another person saves of the draft as they save it, unless something of one’s own is not saved yet. */
function useOthersChanges(id: string, opened: RouteShape | undefined): void {
  const me = useQuery(sessionQuery).data?.person.name;
  // What was opened is the latest until a change is told of.
  const latest = useQuery({
    ...latestRouteQuery(id),
    enabled: opened !== undefined,
    initialData: opened,
    staleTime: Infinity,
  }).data;
  useEffect(() => {
    const { id: shown, saved, takeOver } = useDraft.getState();
    if (!latest || shown !== latest.id || !saved || latest.revision <= saved.revision) return;
    if (takeOver(latest.draft, latest) && latest.draftSavedBy !== me)
      toast(`${latest.draftSavedBy ?? 'Somebody else'} changed this draft. It is shown as it is now.`);
  }, [latest, me]);
}

function Sheet() {
  const { value: definition, saved, saving, error } = useDraft();
  const destination = useDestination();
  const intakes = useQuery(intakeLinesQuery).data;
  if (!definition || !saved || !destination || !intakes) return <Loading />;
  return (
    <Loaded
      definition={definition}
      route={saved}
      saving={saving}
      error={error}
      destination={destination}
      intakes={intakes}
    />
  );
}

function Loaded({
  definition,
  route,
  saving,
  error,
  destination,
  intakes,
}: {
  definition: RouteDefinition;
  route: RouteShape;
  saving: 'saved' | 'saving' | 'failed';
  error: unknown;
  destination: NonNullable<ReturnType<typeof useDestination>>;
  intakes: IntakeLine[];
}) {
  const [publishing, setPublishing] = useState(false);
  const history = useDraft();
  const surroundings = useMemo(
    () => ({ destination, intakes: intakes.map(({ key, name }) => ({ key, name })) }),
    [destination, intakes],
  );
  const rehearsal = useRehearsal(definition, surroundings);
  const suggestions = useSuggestions(definition, route.id, rehearsal.incoming, destination);
  const words = describeRoute(definition, { destination, intakes });
  const problems = route.problems;
  const inTheWay = (...patterns: RegExp[]) =>
    problems.filter(
      ({ at = '', severity }: Problem) => severity === 'error' && patterns.some((pattern) => pattern.test(at)),
    ).length;
  return (
    <div className="flex h-full max-lg:block max-lg:overflow-y-auto">
      <div className="min-w-0 flex-1 overflow-y-auto p-5 max-lg:overflow-visible">
        <PageHead title={definition.name || 'Without a name'}>
          <UndoButtons history={history} />
          <RouteMenu route={route} />
          <PauseOrResume route={route} changed={history.told} />
          <Button look="main" onClick={() => setPublishing(true)}>
            Publish…
          </Button>
        </PageHead>
        <p className="-mt-1 mb-3 flex flex-wrap items-center gap-x-3 gap-y-1">
          <RouteState route={route} />
          <AlsoHere routeId={route.id} />
          <span role="status" className={saving === 'failed' ? 'text-brick' : 'text-muted'}>
            {saving === 'failed'
              ? `Not saved: ${messageOf(error)}`
              : saving === 'saving'
                ? 'Saving the draft …'
                : route.version === null
                  ? 'The draft is saved; nothing of it runs yet'
                  : route.draftDiffers
                    ? 'The draft is saved and differs from what runs'
                    : 'No unpublished changes'}
          </span>
        </p>
        <div className="rounded border border-line">
          <Section
            number={1}
            name="from"
            title="Takes from"
            summary={words.takesFrom}
            problems={inTheWay(/^\/(from|name)/)}
          >
            <TakesFrom definition={definition} />
          </Section>
          <Section
            number={2}
            name="only-when"
            title="Only when"
            summary={words.onlyWhen}
            problems={inTheWay(/^\/onlyWhen/)}
          >
            <OnlyWhen definition={definition} incoming={rehearsal.incoming} />
          </Section>
          <Section number={3} name="mapping" title="Mapping" summary={words.mapping} problems={inTheWay(/\/fills/)}>
            <OfferedQuestions definition={definition} destination={destination} intakes={intakes} />
            <Mapping
              definition={definition}
              destination={destination}
              incoming={rehearsal.incoming}
              sample={rehearsal.sample}
              plan={rehearsal.plan}
              problems={problems}
              suggestions={suggestions}
            />
          </Section>
          <Section
            number={4}
            name="recognise"
            title="Recognise"
            summary={words.recognise}
            problems={inTheWay(/\/match/)}
          >
            <Recognise definition={definition} />
          </Section>
          <Section number={5} name="place" title="Place" summary={words.place} problems={inTheWay(/\/place/)}>
            <PlaceSection definition={definition} destination={destination} />
          </Section>
          <Section
            number={6}
            name="follow-up"
            title="Follow up"
            summary={words.followUp}
            problems={inTheWay(/\/owner/, /^\/followUps/, /^\/holds/)}
          >
            <FollowUpSection
              definition={definition}
              destination={destination}
              incoming={rehearsal.incoming}
              sample={rehearsal.sample}
            />
          </Section>
        </div>
      </div>
      <Rehearsal
        plan={rehearsal.plan}
        error={rehearsal.error}
        inTheWay={rehearsal.problems}
        planning={rehearsal.planning}
        destination={destination}
        choice={rehearsal.choice}
        route={route}
      />
      <PublishDialog
        route={route}
        destination={destination}
        intakes={intakes}
        open={publishing}
        close={() => setPublishing(false)}
      />
    </div>
  );
}
