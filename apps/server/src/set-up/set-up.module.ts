import { Module } from '@nestjs/common';
import { DestinationModule } from '../destination/destination.module';
import { FieldsModule } from '../fields/fields.module';
import { IntakesModule } from '../intakes/intakes.module';
import { LabelsModule } from '../labels/labels.module';
import { PipelinesModule } from '../pipelines/pipelines.module';
import { RecordsModule } from '../records/records.module';
import { RoutesModule } from '../routes/routes.module';
import { ValueSetsModule } from '../value-sets/value-sets.module';
import { ViewsModule } from '../views/views.module';
import { WorkspacesModule } from '../workspaces/workspaces.module';
import { FieldChangesService } from './field-changes.service';
import { FieldUsesService } from './field-uses.service';
import { FieldSetUpController } from './fields.controller';
import { LabelsBroughtBack } from './labels/labels-brought-back';
import { LabelsInRoutes } from './labels/labels-in-routes.service';
import { ListsController, TagsController } from './labels/labels.controller';
import { PipelineSetUpController } from './pipelines.controller';
import { ReadinessController } from './readiness.controller';
import { ReadinessService } from './readiness.service';
import { RemovalsService } from './removals.service';
import { ValueSetsController } from './value-sets.controller';

/** What a workspace changes about what it has prepared. */
@Module({
  imports: [
    DestinationModule,
    FieldsModule,
    IntakesModule,
    LabelsModule,
    PipelinesModule,
    RecordsModule,
    RoutesModule,
    ValueSetsModule,
    ViewsModule,
    WorkspacesModule,
  ],
  controllers: [
    FieldSetUpController,
    ListsController,
    PipelineSetUpController,
    ReadinessController,
    TagsController,
    ValueSetsController,
  ],
  providers: [
    FieldChangesService,
    FieldUsesService,
    LabelsBroughtBack,
    LabelsInRoutes,
    ReadinessService,
    RemovalsService,
  ],
})
export class SetUpModule {}
