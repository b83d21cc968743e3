import { Module } from '@nestjs/common';
import { DestinationModule } from '../destination/destination.module';
import { IntakesModule } from '../intakes/intakes.module';
import { RoutesModule } from '../routes/routes.module';
import { SubmissionsModule } from '../submissions/submissions.module';
import { WorkspacesModule } from '../workspaces/workspaces.module';
import { EntryController } from './entry.controller';
import { FormDomainsController } from './form-domains.controller';
import { FormDomains } from './form-domains.service';
import { FormEditorController } from './form-editor.controller';
import { FormTrials } from './form-trials.service';
import { FormsModule } from './forms.module';
import { FormsService } from './forms.service';

/** Making forms, their trials, their own domains, and entry by colleagues. */
@Module({
  imports: [DestinationModule, FormsModule, IntakesModule, RoutesModule, SubmissionsModule, WorkspacesModule],
  controllers: [EntryController, FormDomainsController, FormEditorController],
  providers: [FormDomains, FormTrials, FormsService],
})
export class FormEditorModule {}
