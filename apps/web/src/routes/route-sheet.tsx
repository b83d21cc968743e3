import { describeRoute, type Problem } from '@haycart/core';
import { useMemo, useState } from 'react';
import { Button } from '../components/button';
import { PageHead } from '../components/sheet';
import { messageOf } from '../components/status';
import { UndoButtons } from '../components/undo-buttons';
import { DecideSection } from './decide/decide-section';
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
import { useOpenedRoute } from './route-pages';
import { AlsoHere } from './also-here';
import { PauseOrResume } from './pause-or-resume';
import { Section } from './section';
import { useSuggestions } from './suggestions';
import { TakesFrom } from './takes-from';
import { useRehearsal } from './use-rehearsal';

/** The page on which one route is read and edited, with its rehearsal at the right. */
export function RouteSheet() {
  const { definition, route, saving, error, destination, intakes } = useOpenedRoute();
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
          <Section
            number={5}
            name="place"
            title="Decide"
            summary={definition.decisions?.length ? `${words.decide}; ${words.place}` : words.place}
            problems={inTheWay(/\/place/, /^\/decisions/)}
          >
            <DecideSection definition={definition} route={route} />
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
