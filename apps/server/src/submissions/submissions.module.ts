import { Module } from '@nestjs/common';
import { CountsModule } from '../counts/counts.module';
import { DestinationModule } from '../destination/destination.module';
import { AcknowledgedCounts } from './counts/acknowledged-counts.service';
import { ArrivalCounts } from './counts/arrival-counts.service';
import { SubmissionInbox } from './inbox/submission-inbox.service';
import { ProfilesService } from './profiles.service';
import { SamplesService } from './samples.service';
import { SubmissionSearch } from './search/submission-search.service';
import { SubmissionQueue } from './submission-queue';
import { SubmissionsService } from './submissions.service';

/** What arrived, its queue, its words and its profiles. */
@Module({
  imports: [CountsModule, DestinationModule],
  providers: [
    AcknowledgedCounts,
    ArrivalCounts,
    ProfilesService,
    SamplesService,
    SubmissionInbox,
    SubmissionQueue,
    SubmissionSearch,
    SubmissionsService,
  ],
  exports: [
    ArrivalCounts,
    ProfilesService,
    SamplesService,
    SubmissionInbox,
    SubmissionQueue,
    SubmissionSearch,
    SubmissionsService,
  ],
})
export class SubmissionsModule {}
