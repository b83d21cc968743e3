import { Inject, Injectable } from '@nestjs/common';
import { ROUTE_SAMPLES, type RouteSheetShape } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';
import { IntakeLinesService } from '../reports/intake-lines.service';
import { RoutesService } from '../routes/routes.service';
import { CasesService } from '../runs/cases.service';
import { ProfilesService } from '../submissions/profiles.service';
import { SubmissionsService } from '../submissions/submissions.service';
import { DestinationService } from '../destination/destination.service';

/** What the page of a route shows, from each area that knows a part of it, so that a page needs one answer. */
@Injectable()
export class RouteSheetService {
  constructor(
    @Inject(RoutesService) private readonly routes: RoutesService,
    @Inject(IntakeLinesService) private readonly intakes: IntakeLinesService,
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(ProfilesService) private readonly profiles: ProfilesService,
    @Inject(SubmissionsService) private readonly submissions: SubmissionsService,
    @Inject(CasesService) private readonly cases: CasesService,
  ) {}

  /** @throws ProblemError 404 when there is no such route. */
  async sheet(tx: WorkspaceTx, id: string): Promise<RouteSheetShape> {
    const route = await this.routes.one(tx, id);
    const intakes = await this.intakes.all(tx);
    const from = intakes.find(({ key }) => key === route.draft.from[0])?.key;
    return {
      route,
      intakes,
      destination: await this.destinations.load(tx),
      definitions: await this.routes.definitionLines(tx),
      cases: await this.cases.all(tx, id),
      samples:
        from === undefined
          ? null
          : {
              intake: from,
              latest: await this.submissions.list(tx, { intake: from }, ROUTE_SAMPLES, null),
              // Read last: what it learns is written.
              profile: await this.profiles.shape(tx, from),
            },
    };
  }
}
