import { Module } from '@nestjs/common';
import { CountsModule } from '../counts/counts.module';
import { DestinationModule } from '../destination/destination.module';
import { IntakesModule } from '../intakes/intakes.module';
import { SubmissionsModule } from '../submissions/submissions.module';
import { PresenceService } from './presence.service';
import { RouteBookService } from './route-book.service';
import { RoutesService } from './routes.service';

/** Routes, their drafts and their versions. */
@Module({
  imports: [CountsModule, DestinationModule, IntakesModule, SubmissionsModule],
  providers: [PresenceService, RouteBookService, RoutesService],
  exports: [PresenceService, RouteBookService, RoutesService],
})
export class RoutesModule {}
