import { Module } from '@nestjs/common';
import { AttributionModule } from '../attribution/attribution.module';
import { CampaignsModule } from '../campaigns/campaigns.module';
import { DestinationModule } from '../destination/destination.module';
import { FieldsModule } from '../fields/fields.module';
import { IdentityModule } from '../identity/identity.module';
import { OutboxModule } from '../outbox/outbox.module';
import { RecordsModule } from '../records/records.module';
import { RoutesModule } from '../routes/routes.module';
import { RunsModule } from '../runs/runs.module';
import { SubmissionsModule } from '../submissions/submissions.module';
import { WorkspacesModule } from '../workspaces/workspaces.module';
import { DecisionsController } from './decisions.controller';
import { DecisionsService } from './decisions.service';
import { KINDS, type DecisionKind } from './kinds/decision-kind';
import { DriftWatch } from './kinds/drift/drift-watch.service';
import { RepairsService } from './kinds/drift/repairs.service';
import { KIND_CLASSES } from './kinds/registry';

/** What waits for a person. */
@Module({
  imports: [
    AttributionModule,
    CampaignsModule,
    DestinationModule,
    FieldsModule,
    IdentityModule,
    OutboxModule,
    RecordsModule,
    RoutesModule,
    RunsModule,
    SubmissionsModule,
    WorkspacesModule,
  ],
  controllers: [DecisionsController],
  providers: [
    ...KIND_CLASSES,
    { provide: KINDS, useFactory: (...all: DecisionKind[]) => all, inject: KIND_CLASSES },
    DecisionsService,
    DriftWatch,
    RepairsService,
  ],
  exports: [DecisionsService],
})
export class DecisionsModule {}
