import { Module, type DynamicModule } from '@nestjs/common';
import { APP_FILTER, APP_GUARD, APP_PIPE } from '@nestjs/core';
import { FieldsController } from './fields/fields.controller';
import { FieldsService } from './fields/fields.service';
import { FormPages } from './forms/form-pages.service';
import { FormsController } from './forms/forms.controller';
import { IntakeDirectory } from './intakes/intake-directory.service';
import { IntakesController } from './intakes/intakes.controller';
import { IntakesService } from './intakes/intakes.service';
import { PipelinesController } from './pipelines/pipelines.controller';
import { PipelinesService } from './pipelines/pipelines.service';
import { AuthGuard } from './platform/auth/auth.guard';
import type { Config } from './platform/config';
import { validation } from './platform/errors/validate';
import { ProblemFilter } from './platform/errors/problem-filter';
import { EventsController } from './platform/events/events.controller';
import { PlatformModule } from './platform/platform.module';
import { DealMovesService } from './records/deal-moves.service';
import { FullnessService } from './records/fullness.service';
import { DealGridService } from './records/deal-grid.service';
import { KnownRecordsStore } from './records/known-records.store';
import { WebPageController } from './platform/web-page.controller';
import { RecordWriter } from './records/record-writer';
import { RecordsController } from './records/records.controller';
import { RecordsService } from './records/records.service';
import { StagesController } from './records/stages.controller';
import { ReportsController } from './reports/reports.controller';
import { ReportsService } from './reports/reports.service';
import { RouteBookService } from './routes/route-book.service';
import { RoutesController } from './routes/routes.controller';
import { RoutesService } from './routes/routes.service';
import { SchemaController } from './routes/schema.controller';
import { RehearsalService } from './runs/rehearsal.service';
import { RouterService } from './runs/router.service';
import { RunStore } from './runs/run-store';
import { RunsController } from './runs/runs.controller';
import { RunsService } from './runs/runs.service';
import { FieldSetUpController } from './set-up/fields.controller';
import { FieldUsesService } from './set-up/field-uses.service';
import { PipelineSetUpController } from './set-up/pipelines.controller';
import { RemovalsService } from './set-up/removals.service';
import { AcceptHandler } from './submissions/accept/accept.handler';
import { SubmissionInbox } from './submissions/accept/submission-inbox.service';
import { SubmissionQueue } from './submissions/submission-queue';
import { SubmissionsController } from './submissions/submissions.controller';
import { SubmissionsService } from './submissions/submissions.service';
import { DemoPeople } from './workspaces/demo-people';
import { DestinationService } from './workspaces/destination.service';
import { PeopleService } from './workspaces/people.service';
import { SessionController } from './workspaces/session.controller';
import { WorkspacesService } from './workspaces/workspaces.service';

const WEB = [
  EventsController,
  FieldsController,
  FieldSetUpController,
  IntakesController,
  PipelinesController,
  PipelineSetUpController,
  ReportsController,
  RoutesController,
  RunsController,
  SchemaController,
  SessionController,
  StagesController,
  SubmissionsController,
];
/** Stand last: their paths begin with a parameter, and take whatever is left. */
const LAST = [RecordsController, WebPageController];

/** The whole server; which addresses it answers depends on its role. */
@Module({})
export class AppModule {
  static with(config: Config): DynamicModule {
    const web = config.role === 'all' || config.role === 'web';
    const forms = config.role !== 'route';
    return {
      module: AppModule,
      imports: [PlatformModule.with(config)],
      controllers: [...(forms ? [FormsController] : []), ...(web ? [...WEB, ...LAST] : [])],
      providers: [
        { provide: APP_GUARD, useClass: AuthGuard },
        { provide: APP_FILTER, useClass: ProblemFilter },
        { provide: APP_PIPE, useValue: validation },
        AcceptHandler,
        DealGridService,
        DealMovesService,
        DemoPeople,
        DestinationService,
        FieldsService,
        FieldUsesService,
        FormPages,
        FullnessService,
        IntakeDirectory,
        IntakesService,
        KnownRecordsStore,
        PeopleService,
        PipelinesService,
        RecordsService,
        RecordWriter,
        RehearsalService,
        RemovalsService,
        ReportsService,
        RouteBookService,
        RouterService,
        RoutesService,
        RunsService,
        RunStore,
        SubmissionInbox,
        SubmissionQueue,
        SubmissionsService,
        WorkspacesService,
      ],
    };
  }
}
