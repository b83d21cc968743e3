import { Module, type DynamicModule } from '@nestjs/common';
import { APP_FILTER, APP_GUARD, APP_INTERCEPTOR, APP_PIPE } from '@nestjs/core';
import { AnswerDecisions } from './decisions/answer-decisions';
import { AsideDecisions } from './decisions/aside-decisions';
import { DecisionsController } from './decisions/decisions.controller';
import { DecisionsService } from './decisions/decisions.service';
import { DriftDecisions } from './decisions/drift-decisions';
import { DriftWatch } from './decisions/drift-watch.service';
import { RepairsService } from './decisions/repairs.service';
import { RunDecisions } from './decisions/run-decisions';
import { UndeliveredDecisions } from './decisions/undelivered-decisions';
import { OutboxModule } from './outbox/outbox.module';
import { FieldsController } from './fields/fields.controller';
import { FieldsService } from './fields/fields.service';
import { FormAnswers } from './forms/form-answers.service';
import { FormCounts } from './forms/form-counts.service';
import { EntryController } from './forms/entry.controller';
import { EntryLinks } from './forms/entry-links.service';
import { FormTrials } from './forms/form-trials.service';
import { FormDomains } from './forms/form-domains.service';
import { FormDomainsController } from './forms/form-domains.controller';
import { FormHosts } from './forms/form-hosts.service';
import { FormEditorController } from './forms/form-editor.controller';
import { FormPages } from './forms/form-pages.service';
import { FormsService } from './forms/forms.service';
import { FormPictures } from './forms/pictures/form-pictures.service';
import { FormPicturesController } from './forms/pictures/form-pictures.controller';
import { PublicForms } from './forms/public-forms.service';
import { ThemesService } from './forms/themes.service';
import { FormsController } from './forms/forms.controller';
import { IntakeDirectory } from './intakes/intake-directory.service';
import { IntakesController } from './intakes/intakes.controller';
import { IntakesService } from './intakes/intakes.service';
import { LabelsInRoutes } from './labels/labels-in-routes.service';
import { LabelsService } from './labels/labels.service';
import { PipelinesController } from './pipelines/pipelines.controller';
import { PipelinesService } from './pipelines/pipelines.service';
import { PipelinesStore } from './pipelines/pipelines.store';
import { AuditController } from './audit/audit.controller';
import { AuditService } from './audit/audit.service';
import { CommandInterceptor } from './audit/command.interceptor';
import { AuthGuard } from './platform/auth/auth.guard';
import { AfterChanges } from './platform/jobs/after-changes';
import type { Config } from './platform/config';
import { validation } from './platform/errors/validate';
import { ProblemFilter } from './platform/errors/problem-filter';
import { EventsController } from './platform/events/events.controller';
import { FORM_STYLE } from './platform/tokens';
import { PlatformModule } from './platform/platform.module';
import { DealMovesService } from './records/deal-moves.service';
import { FullnessService } from './records/fullness.service';
import { DealGridService } from './records/deal-grid.service';
import { CandidateSearch } from './records/candidate-search.service';
import { KnownRecordsStore } from './records/known-records.store';
import { WebPageController } from './platform/web-page.controller';
import { RecordWriter } from './records/record-writer';
import { RecordsController } from './records/records.controller';
import { RecordsService } from './records/records.service';
import { StagesController } from './records/stages.controller';
import { ReportsController } from './reports/reports.controller';
import { HomeService } from './reports/home.service';
import { ReportsService } from './reports/reports.service';
import { RouteSheetController } from './route-sheet/route-sheet.controller';
import { RouteSheetService } from './route-sheet/route-sheet.service';
import { RouteBookService } from './routes/route-book.service';
import { CatchingUpService } from './routes/catching-up.service';
import { PresenceService } from './routes/presence.service';
import { RoutesController } from './routes/routes.controller';
import { RoutesService } from './routes/routes.service';
import { SchemaController } from './routes/schema.controller';
import { PassingService } from './runs/passing.service';
import { RehearsalService } from './runs/rehearsal.service';
import { RouterService } from './runs/router.service';
import { RunStore } from './runs/run-store';
import { CasesService } from './runs/cases.service';
import { ComparisonsController } from './runs/comparisons.controller';
import { ComparisonsService } from './runs/comparisons.service';
import { RunsController } from './runs/runs.controller';
import { FillInService } from './runs/fill-in.service';
import { TakeBackService } from './runs/take-back.service';
import { RunsService } from './runs/runs.service';
import { FieldSetUpController } from './set-up/fields.controller';
import { FieldChangesService } from './set-up/field-changes.service';
import { FieldValuesService } from './records/field-values.service';
import { FieldUsesService } from './set-up/field-uses.service';
import { PipelineSetUpController } from './set-up/pipelines.controller';
import { ReadinessController } from './set-up/readiness.controller';
import { ReadinessService } from './set-up/readiness.service';
import { RemovalsService } from './set-up/removals.service';
import { AcceptHandler } from './submissions/accept/accept.handler';
import { SubmissionInbox } from './submissions/accept/submission-inbox.service';
import { ArrivalCounts } from './submissions/counts/arrival-counts.service';
import { RunCounts } from './runs/counts/run-counts.service';
import { SubmissionSearch } from './submissions/search/submission-search.service';
import { SubmissionQueue } from './submissions/submission-queue';
import { SubmissionsController } from './submissions/submissions.controller';
import { ProfilesController } from './submissions/profiles.controller';
import { ProfilesService } from './submissions/profiles.service';
import { SamplesService } from './submissions/samples.service';
import { SubmissionsService } from './submissions/submissions.service';
import { AccountController } from './workspaces/account.controller';
import { PersonLinks } from './workspaces/person-links.service';
import { SealedSecrets } from './sealed-secrets';
import { SessionsService } from './workspaces/sessions.service';
import { SignInService } from './workspaces/sign-in.service';
import { TokensService } from './workspaces/tokens.service';
import { DemoPeople } from './workspaces/demo-people';
import { DestinationService } from './workspaces/destination.service';
import { PeopleService } from './workspaces/people.service';
import { SessionController } from './workspaces/session.controller';
import { TeamsService } from './workspaces/teams.service';
import { WorkspacesService } from './workspaces/workspaces.service';
import { PlacesController } from './records/places.controller';
import { EditsController } from './records/edits.controller';
import { LeadsController } from './records/leads.controller';
import { LeadsService } from './records/leads.service';
import { LabelledService } from './records/labelled.service';
import { ListsController, TagsController } from './labels/labels.controller';
import { ActivitiesController } from './records/activities/activities.controller';
import { ActivitiesService } from './records/activities/activities.service';
import { PeopleController } from './workspaces/people.controller';
import { LookAlikeDecisions } from './decisions/look-alike-decisions';
import { WhichRecordDecisions } from './decisions/which-record-decisions';
import { IdentityController } from './identity/identity.controller';
import { EarlyLearning } from './identity/early-learning.service';
import { IdentityReportService } from './identity/identity-report.service';
import { LookAlikesService } from './identity/look-alikes.service';
import { LookAlikesStore } from './identity/look-alikes.store';
import { LookAlikeWatch } from './identity/look-alike-watch.service';
import { MergesService } from './identity/merges.service';
import { RecordIndexing } from './identity/record-indexing.service';
import { RecordSides } from './identity/record-sides.service';
import { ScanService } from './identity/scan.service';
import { ThresholdsService } from './identity/thresholds.service';
import { UnmergeService } from './identity/unmerge.service';
import { MatchAnswersService } from './identity/match-answers.service';
import { RecognitionService } from './identity/recognition.service';
import { SheetsController } from './sheets/sheets.controller';
import { SheetReading } from './sheets/sheet-reading.service';
import { SheetTakeBackService } from './sheets/sheet-take-back.service';
import { SheetsService } from './sheets/sheets.service';
import { WorkspaceController } from './workspaces/workspace.controller';
import { RatesService } from './workspaces/rates.service';
import { ViewsController } from './views/views.controller';
import { ViewsService } from './views/views.service';
import { RecordsBin } from './records/bin/records-bin.service';
import { RecordsBinController } from './records/bin/records-bin.controller';
import { RecordListsService } from './records/record-lists.service';
import { RecordSheetService } from './records/record-sheet.service';
import { RecordActs } from './records/record-acts.service';
import { RecordEditsService } from './records/record-edits.service';
import { HeldRecords } from './records/held-records.service';
import { RecordShapes } from './records/record-shapes';

const WEB = [
  AccountController,
  AuditController,
  DecisionsController,
  IdentityController,
  EventsController,
  ReadinessController,
  PlacesController,
  WorkspaceController,
  ViewsController,
  PeopleController,
  LeadsController,
  ListsController,
  TagsController,
  EditsController,
  RecordsBinController,
  EntryController,
  FormDomainsController,
  FieldsController,
  FormEditorController,
  FieldSetUpController,
  IntakesController,
  PipelinesController,
  PipelineSetUpController,
  ReportsController,
  RoutesController,
  RouteSheetController,
  RunsController,
  ComparisonsController,
  SchemaController,
  SessionController,
  SheetsController,
  StagesController,
  SubmissionsController,
  ProfilesController,
];
/** Stand last: their paths begin with a parameter, and take whatever is left. */
const LAST = [ActivitiesController, RecordsController, WebPageController];

/** The whole server; which addresses it answers depends on its role. */
@Module({})
export class AppModule {
  static with(config: Config, formStyle: string): DynamicModule {
    const web = config.role === 'all' || config.role === 'web';
    const forms = config.role !== 'route';
    return {
      module: AppModule,
      imports: [PlatformModule.with(config), OutboxModule.with(config)],
      controllers: [...(forms ? [FormsController, FormPicturesController] : []), ...(web ? [...WEB, ...LAST] : [])],
      providers: [
        { provide: APP_GUARD, useClass: AuthGuard },
        { provide: APP_INTERCEPTOR, useClass: CommandInterceptor },
        { provide: APP_FILTER, useClass: ProblemFilter },
        { provide: APP_PIPE, useValue: validation },
        { provide: FORM_STYLE, useValue: formStyle },
        AcceptHandler,
        AuditService,
        AfterChanges,
        EntryLinks,
        FormDomains,
        FormHosts,
        FormAnswers,
        FormCounts,
        FormTrials,
        FormsService,
        PublicForms,
        ThemesService,
        FormPictures,
        UndeliveredDecisions,
        AnswerDecisions,
        AsideDecisions,
        DecisionsService,
        DriftDecisions,
        DriftWatch,
        EarlyLearning,
        RunDecisions,
        RepairsService,
        FillInService,
        ViewsService,
        RecordSheetService,
        RouteSheetService,
        RecordShapes,
        RecordListsService,
        HeldRecords,
        RecordActs,
        RecordEditsService,
        RecordsBin,
        RatesService,
        ReadinessService,
        LeadsService,
        LabelledService,
        ActivitiesService,
        DealGridService,
        DealMovesService,
        DemoPeople,
        DestinationService,
        FieldsService,
        FieldChangesService,
        FieldUsesService,
        FieldValuesService,
        FormPages,
        FullnessService,
        IdentityReportService,
        IntakeDirectory,
        IntakesService,
        LookAlikeDecisions,
        LookAlikesService,
        LookAlikesStore,
        LookAlikeWatch,
        MatchAnswersService,
        MergesService,
        RecordIndexing,
        RecordSides,
        ScanService,
        ThresholdsService,
        SheetReading,
        SheetsService,
        SheetTakeBackService,
        UnmergeService,
        WhichRecordDecisions,
        RecognitionService,
        CandidateSearch,
        KnownRecordsStore,
        LabelsService,
        LabelsInRoutes,
        PeopleService,
        PipelinesService,
        PipelinesStore,
        RecordsService,
        RecordWriter,
        PassingService,
        CasesService,
        ComparisonsService,
        TakeBackService,
        RehearsalService,
        RemovalsService,
        HomeService,
        ReportsService,
        RouteBookService,
        RouterService,
        RoutesService,
        CatchingUpService,
        PresenceService,
        RunsService,
        RunStore,
        SubmissionInbox,
        SubmissionQueue,
        ProfilesService,
        SamplesService,
        ArrivalCounts,
        RunCounts,
        SubmissionSearch,
        SubmissionsService,
        PersonLinks,
        SealedSecrets,
        SessionsService,
        SignInService,
        TeamsService,
        TokensService,
        WorkspacesService,
      ],
    };
  }
}
