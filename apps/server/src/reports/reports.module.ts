import { Module } from '@nestjs/common';
import { CountsModule } from '../counts/counts.module';
import { DecisionsModule } from '../decisions/decisions.module';
import { DestinationModule } from '../destination/destination.module';
import { IntakesModule } from '../intakes/intakes.module';
import { RecordsModule } from '../records/records.module';
import { SubmissionsModule } from '../submissions/submissions.module';
import { WorkspacesModule } from '../workspaces/workspaces.module';
import { BalanceMetric } from './balance-metric.service';
import { BalanceController } from './balance.controller';
import { BalanceService } from './balance.service';
import { HomeService } from './home.service';
import { IntakeLinesService } from './intake-lines.service';
import { ReportsController } from './reports.controller';
import { ReportsService } from './reports.service';

/** What home, the band, the list of intakes and finding show. */
@Module({
  imports: [
    CountsModule,
    DecisionsModule,
    DestinationModule,
    IntakesModule,
    RecordsModule,
    SubmissionsModule,
    WorkspacesModule,
  ],
  controllers: [ReportsController, BalanceController],
  providers: [BalanceMetric, BalanceService, HomeService, IntakeLinesService, ReportsService],
  exports: [IntakeLinesService],
})
export class ReportsModule {}
