import { Module } from '@nestjs/common';
import { DestinationModule } from '../destination/destination.module';
import { FormsModule } from '../forms/forms.module';
import { IntakesModule } from '../intakes/intakes.module';
import { RecordsModule } from '../records/records.module';
import { RoutesModule } from '../routes/routes.module';
import { RunsModule } from '../runs/runs.module';
import { SubmissionsModule } from '../submissions/submissions.module';
import { WorkspacesModule } from '../workspaces/workspaces.module';
import { AskedController } from './asked.controller';
import { AskedPages } from './asked-pages.service';
import { ConsentController } from './consent.controller';
import { ConsentPages } from './consent-pages.service';

/** Where those answer who are asked by mail before anything is written: no signing in, by a link of their own. */
@Module({
  imports: [
    DestinationModule,
    FormsModule,
    IntakesModule,
    RecordsModule,
    RoutesModule,
    RunsModule,
    SubmissionsModule,
    WorkspacesModule,
  ],
  controllers: [AskedController, ConsentController],
  providers: [AskedPages, ConsentPages],
})
export class AskingModule {}
