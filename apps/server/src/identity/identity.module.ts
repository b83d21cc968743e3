import { Module } from '@nestjs/common';
import { DestinationModule } from '../destination/destination.module';
import { RecognitionModule } from '../recognition/recognition.module';
import { RecordsModule } from '../records/records.module';
import { WorkspacesModule } from '../workspaces/workspaces.module';
import { EarlyLearning } from './early-learning.service';
import { IdentityReportService } from './identity-report.service';
import { LookAlikeWatch } from './look-alike-watch.service';
import { LookAlikesService } from './look-alikes.service';
import { LookAlikesStore } from './look-alikes.store';
import { MatchAnswersService } from './match-answers.service';
import { MergesService } from './merges.service';
import { RecordIndexing } from './record-indexing.service';
import { RecordSides } from './record-sides.service';
import { ScanService } from './scan.service';
import { ThresholdsService } from './thresholds.service';
import { UnmergeService } from './unmerge.service';

/** Who is the same: look-alikes, merging, what was answered about them. */
@Module({
  imports: [DestinationModule, RecognitionModule, RecordsModule, WorkspacesModule],
  providers: [
    EarlyLearning,
    IdentityReportService,
    LookAlikeWatch,
    LookAlikesService,
    LookAlikesStore,
    MatchAnswersService,
    MergesService,
    RecordIndexing,
    RecordSides,
    ScanService,
    ThresholdsService,
    UnmergeService,
  ],
  exports: [
    IdentityReportService,
    LookAlikesService,
    MatchAnswersService,
    MergesService,
    RecordSides,
    ScanService,
    ThresholdsService,
    UnmergeService,
  ],
})
export class IdentityModule {}
