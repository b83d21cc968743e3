import { AskingModule } from '../asking/asking.module';
import { AttributionApiModule } from '../attribution/attribution-api.module';
import { AuditModule } from '../audit/audit.module';
import { CampaignsApiModule } from '../campaigns/campaigns-api.module';
import { DecisionsModule } from '../decisions/decisions.module';
import { DestinationApiModule } from '../destination/destination-api.module';
import { FormEditorModule } from '../forms/form-editor.module';
import { FormsModule } from '../forms/forms.module';
import { IdentityApiModule } from '../identity/identity-api.module';
import { IntakesApiModule } from '../intakes/intakes-api.module';
import { MessagingApiModule } from '../messaging/messaging-api.module';
import { OutboxApiModule } from '../outbox/outbox-api.module';
import { PipelinesApiModule } from '../pipelines/pipelines-api.module';
import { EventsModule } from '../platform/events/events.module';
import { WebPageModule } from '../platform/web-page.module';
import { RecordsApiModule } from '../records/records-api.module';
import { ReportsModule } from '../reports/reports.module';
import { RouteSheetModule } from '../route-sheet/route-sheet.module';
import { RoutesApiModule } from '../routes/routes-api.module';
import { RunsApiModule } from '../runs/runs-api.module';
import { SetUpModule } from '../set-up/set-up.module';
import { SheetsModule } from '../sheets/sheets.module';
import { SubmissionsApiModule } from '../submissions/submissions-api.module';
import { ViewsModule } from '../views/views.module';
import { WorkspacesApiModule } from '../workspaces/workspaces-api.module';

/** What people and scripts use: the application, its API, and forms. */
export const MODULES = [
  AuditModule,
  EventsModule,
  WorkspacesApiModule,
  DestinationApiModule,
  PipelinesApiModule,
  IntakesApiModule,
  FormsModule,
  FormEditorModule,
  AskingModule,
  SubmissionsApiModule,
  RoutesApiModule,
  RunsApiModule,
  MessagingApiModule,
  OutboxApiModule,
  SheetsModule,
  IdentityApiModule,
  DecisionsModule,
  ReportsModule,
  AttributionApiModule,
  CampaignsApiModule,
  RouteSheetModule,
  SetUpModule,
  ViewsModule,
  // Their paths begin with a parameter, and take whatever is left.
  RecordsApiModule,
  WebPageModule,
];
