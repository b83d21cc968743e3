import { Inject, Injectable } from '@nestjs/common';
import { checkForm, checkRoute, nobodyTakes, readiness, type ReadyCheck } from '@haycart/core';
import type { WorkspaceTx } from '../platform/database/database';
import { IntakesService } from '../intakes/intakes.service';
import { PipelinesService } from '../pipelines/pipelines.service';
import { DealMovesService } from '../records/stages/deal-moves.service';
import { RoutesService } from '../routes/routes.service';
import { DestinationService } from '../destination/destination.service';
import { TeamsService } from '../workspaces/teams.service';
import { FieldUsesService } from './field-uses.service';
import { RemovalsService } from './removals.service';

/** Whether a workspace is ready for submissions, gathered from everything that it has prepared. */
@Injectable()
export class ReadinessService {
  constructor(
    @Inject(FieldUsesService) private readonly fields: FieldUsesService,
    @Inject(RemovalsService) private readonly places: RemovalsService,
    @Inject(DealMovesService) private readonly moves: DealMovesService,
    @Inject(PipelinesService) private readonly pipelines: PipelinesService,
    @Inject(RoutesService) private readonly routes: RoutesService,
    @Inject(IntakesService) private readonly intakes: IntakesService,
    @Inject(TeamsService) private readonly teams: TeamsService,
    @Inject(DestinationService) private readonly destinations: DestinationService,
  ) {}

  async checks(tx: WorkspaceTx): Promise<ReadyCheck[]> {
    const intakes = await this.intakes.all(tx);
    const destination = await this.destinations.load(tx);
    const surroundings = { destination, intakes };
    const now = new Date().toISOString();
    const named = await this.places.named(tx);
    const reached = await this.moves.reached(tx);
    const isReached = (pipeline: string, stage: string) =>
      named.some((one) => one.pipeline === pipeline && one.stage === stage && one.routes.length > 0) ||
      reached.some((place) => place.pipeline === pipeline && place.stage === stage);
    return readiness({
      intakes: intakes.length,
      dealWord: destination.dealWord,
      fields: (await this.fields.all(tx))
        .filter(({ retired }) => !retired)
        .map(({ record, key, label, kept = false, required, routes, filled }) => ({
          record,
          key,
          label,
          kept,
          required,
          routes: routes.length,
          filled,
        })),
      stages: (await this.pipelines.all(tx)).flatMap(({ key: pipeline, name: pipelineName, stages }) =>
        stages.map(({ key: stage, name, state }) => ({
          pipeline,
          pipelineName,
          stage,
          name,
          open: state === 'open',
          reached: isReached(pipeline, stage),
        })),
      ),
      forms: intakes.flatMap(({ key, name, form }) =>
        form
          ? [
              {
                key,
                name,
                problems: checkForm(form, destination)
                  .filter(({ severity }) => severity === 'error')
                  .map(({ text }) => text),
              },
            ]
          : [],
      ),
      routes: (await this.routes.definitions(tx)).map(({ id, name, draft, published, state }) => ({
        id,
        name,
        live: state === 'live',
        problems: checkRoute(published ?? draft, surroundings)
          .filter(({ severity }) => severity === 'error')
          .map(({ text }) => text),
        nobody: nobodyTakes(published ?? draft, destination, now),
      })),
      people: (await this.teams.everybody(tx)).map(({ key, name, active, teams }) => ({
        key,
        name,
        active,
        teams: teams.length,
      })),
    });
  }
}
