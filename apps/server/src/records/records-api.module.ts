import { Module } from '@nestjs/common';
import { DestinationModule } from '../destination/destination.module';
import { WorkspacesModule } from '../workspaces/workspaces.module';
import { ActivitiesController } from './activities/activities.controller';
import { AssignmentsController } from './assignments/assignments.controller';
import { RecordsBinController } from './bin/records-bin.controller';
import { EditsController } from './edits/edits.controller';
import { LeadsController } from './leads/leads.controller';
import { RecordsController } from './records.controller';
import { RecordsModule } from './records.module';
import { PlacesController } from './stages/places.controller';
import { StagesController } from './stages/stages.controller';

/** Records over the API. Its paths begin with a parameter. */
@Module({
  imports: [DestinationModule, RecordsModule, WorkspacesModule],
  controllers: [
    AssignmentsController,
    ActivitiesController,
    EditsController,
    LeadsController,
    PlacesController,
    RecordsBinController,
    RecordsController,
    StagesController,
  ],
})
export class RecordsApiModule {}
