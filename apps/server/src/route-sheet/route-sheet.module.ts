import { Module } from '@nestjs/common';
import { DestinationModule } from '../destination/destination.module';
import { ReportsModule } from '../reports/reports.module';
import { RoutesModule } from '../routes/routes.module';
import { RunsModule } from '../runs/runs.module';
import { SubmissionsModule } from '../submissions/submissions.module';
import { RouteSheetController } from './route-sheet.controller';
import { RouteSheetService } from './route-sheet.service';

/** What the page of a route shows. */
@Module({
  imports: [DestinationModule, ReportsModule, RoutesModule, RunsModule, SubmissionsModule],
  controllers: [RouteSheetController],
  providers: [RouteSheetService],
})
export class RouteSheetModule {}
