import 'reflect-metadata';
import { NestFactory } from '@nestjs/core';
import { AppModule } from './app.module';
import { CampaignCosts } from './campaigns/campaign-costs.service';
import { CampaignLinks } from './campaigns/campaign-links.service';
import { CampaignsService } from './campaigns/campaigns.service';
import { FieldsService } from './fields/fields.service';
import { FormCounts } from './forms/form-counts.service';
import { FormsService } from './forms/forms.service';
import { ThemesService } from './forms/themes.service';
import { IntakesService } from './intakes/intakes.service';
import { MergesService } from './identity/merges.service';
import { ScanService } from './identity/scan.service';
import { LabelsService } from './labels/labels.service';
import { readConfig } from './platform/config';
import { Database } from './platform/database/database';
import { prepareDatabase } from './platform/database/migrate';
import { PinoLogger } from './platform/logging';
import { MailFiles } from './messaging/mail/mail-files.service';
import { PdfWriter } from './platform/pdf/pdf-writer.service';
import { MailServers } from './messaging/mail/mail-servers.service';
import { MailTemplates } from './messaging/mail/mail-templates.service';
import { ChannelsService } from './messaging/channels.service';
import { AssignmentsService } from './records/assignments/assignments.service';
import { TasksService } from './records/activities/tasks.service';
import { ActivitiesService } from './records/activities/activities.service';
import { ConsentsService } from './records/consents/consents.service';
import { CandidateSearch } from './records/recognised/candidate-search.service';
import { LeadsService } from './records/leads/leads.service';
import { RecordsService } from './records/records.service';
import { RecordEditsService } from './records/edits/record-edits.service';
import { ViewsService } from './views/views.service';
import { DestinationService } from './destination/destination.service';
import { RatesService } from './workspaces/rates.service';
import { DealMovesService } from './records/stages/deal-moves.service';
import { RoutesService } from './routes/routes.service';
import { ComparisonsService } from './runs/comparisons.service';
import { HoldAnswersService } from './runs/holds/hold-answers.service';
import { RouterService } from './runs/router.service';
import { SheetReading } from './sheets/sheet-reading.service';
import { SheetsService } from './sheets/sheets.service';
import { SubmissionInbox } from './submissions/inbox/submission-inbox.service';
import { SubmissionQueue } from './submissions/submission-queue';
import { SubmissionSearch } from './submissions/search/submission-search.service';
import { PeopleService } from './workspaces/people.service';
import { TeamsService } from './workspaces/teams.service';
import { ValueSetsService } from './value-sets/value-sets.service';
import { TokensService } from './workspaces/tokens.service';
import { WorkspacesService } from './workspaces/workspaces.service';

/** The server's services without its addresses and workers: for filling a database by the same code that runs live. */
export async function openServices(env: NodeJS.ProcessEnv, migrations: string) {
  const given = readConfig(env);
  const databaseUrl = await prepareDatabase(given, migrations);
  const config = { ...given, databaseUrl, role: 'web' as const, background: false, logLevel: 'error' as const };
  const context = await NestFactory.createApplicationContext(await AppModule.with(config, ''), {
    logger: new PinoLogger(config),
    abortOnError: false,
  });
  return {
    assignments: context.get(AssignmentsService),
    campaigns: context.get(CampaignsService),
    campaignCosts: context.get(CampaignCosts),
    campaignLinks: context.get(CampaignLinks),
    database: context.get(Database),
    fields: context.get(FieldsService),
    inbox: context.get(SubmissionInbox),
    forms: context.get(FormsService),
    formCounts: context.get(FormCounts),
    intakes: context.get(IntakesService),
    themes: context.get(ThemesService),
    people: context.get(PeopleService),
    activities: context.get(ActivitiesService),
    consents: context.get(ConsentsService),
    tasks: context.get(TasksService),
    channels: context.get(ChannelsService),
    mailFiles: context.get(MailFiles),
    pdfs: context.get(PdfWriter),
    mailServers: context.get(MailServers),
    mailTemplates: context.get(MailTemplates),
    candidates: context.get(CandidateSearch),
    deals: context.get(DealMovesService),
    destinations: context.get(DestinationService),
    edits: context.get(RecordEditsService),
    leads: context.get(LeadsService),
    rates: context.get(RatesService),
    views: context.get(ViewsService),
    comparisons: context.get(ComparisonsService),
    holdAnswers: context.get(HoldAnswersService),
    queue: context.get(SubmissionQueue),
    router: context.get(RouterService),
    routes: context.get(RoutesService),
    records: context.get(RecordsService),
    scans: context.get(ScanService),
    merges: context.get(MergesService),
    teams: context.get(TeamsService),
    labels: context.get(LabelsService),
    search: context.get(SubmissionSearch),
    sheets: context.get(SheetsService),
    sheetReading: context.get(SheetReading),
    tokens: context.get(TokensService),
    valueSets: context.get(ValueSetsService),
    workspaces: context.get(WorkspacesService),
    close: () => context.close(),
  };
}

export type Services = Awaited<ReturnType<typeof openServices>>;
