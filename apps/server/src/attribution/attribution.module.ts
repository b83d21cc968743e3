import { Module } from '@nestjs/common';
import { DestinationModule } from '../destination/destination.module';
import { RecordsModule } from '../records/records.module';
import { WorkspacesModule } from '../workspaces/workspaces.module';
import { MovesService } from './changes/moves.service';
import { SourceChanges } from './changes/source-changes.service';
import { WaysOfOld } from './changes/ways-of-old.service';
import { JourneysService } from './journeys.service';

/** Which touches led to which record, kept up to date, and changes to the sources of past visits. */
@Module({
  imports: [DestinationModule, RecordsModule, WorkspacesModule],
  providers: [JourneysService, MovesService, SourceChanges, WaysOfOld],
  exports: [JourneysService, SourceChanges],
})
export class AttributionModule {}
