import { Module } from '@nestjs/common';
import { IntakesModule } from '../intakes/intakes.module';
import { RunsModule } from '../runs/runs.module';
import { SubmissionsModule } from '../submissions/submissions.module';
import { WorkspacesModule } from '../workspaces/workspaces.module';
import { SheetReading } from './sheet-reading.service';
import { SheetTakeBackService } from './sheet-take-back.service';
import { SheetsController } from './sheets.controller';
import { SheetsService } from './sheets.service';

/** Files of rows that come in. */
@Module({
  imports: [IntakesModule, RunsModule, SubmissionsModule, WorkspacesModule],
  controllers: [SheetsController],
  providers: [SheetReading, SheetTakeBackService, SheetsService],
})
export class SheetsModule {}
