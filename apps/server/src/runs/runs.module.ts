import { Module } from '@nestjs/common';
import { DestinationModule } from '../destination/destination.module';
import { FieldsModule } from '../fields/fields.module';
import { IdentityModule } from '../identity/identity.module';
import { OutboxModule } from '../outbox/outbox.module';
import { RecordsModule } from '../records/records.module';
import { RoutesModule } from '../routes/routes.module';
import { SubmissionsModule } from '../submissions/submissions.module';
import { WorkspacesModule } from '../workspaces/workspaces.module';
import { CasesService } from './cases.service';
import { CatchingUpService } from './catching-up/catching-up.service';
import { ComparisonsService } from './comparisons.service';
import { CountersService } from './counters.service';
import { FillInService } from './fill-in.service';
import { HandOverService } from './handing-over/hand-over.service';
import { AskedService } from './holds/asked.service';
import { HoldAnswersService } from './holds/hold-answers.service';
import { PassingService } from './passing.service';
import { MissedPromises } from './promises/missed-promises.service';
import { RehearsalService } from './rehearsal.service';
import { RouterService } from './router.service';
import { RunStore } from './run-store';
import { RunsService } from './runs.service';
import { TakeBackService } from './take-back.service';

/** Routing what arrived: live, rehearsed, compared, taken back. */
@Module({
  imports: [
    DestinationModule,
    FieldsModule,
    IdentityModule,
    OutboxModule,
    RecordsModule,
    RoutesModule,
    SubmissionsModule,
    WorkspacesModule,
  ],
  providers: [
    AskedService,
    CasesService,
    CatchingUpService,
    ComparisonsService,
    CountersService,
    FillInService,
    HandOverService,
    HoldAnswersService,
    MissedPromises,
    PassingService,
    RehearsalService,
    RouterService,
    RunStore,
    RunsService,
    TakeBackService,
  ],
  exports: [
    AskedService,
    CasesService,
    CatchingUpService,
    ComparisonsService,
    FillInService,
    HandOverService,
    HoldAnswersService,
    MissedPromises,
    PassingService,
    RehearsalService,
    RunsService,
    TakeBackService,
  ],
})
export class RunsModule {}
