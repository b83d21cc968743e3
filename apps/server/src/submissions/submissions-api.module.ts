import { Module } from '@nestjs/common';
import { ProfilesController } from './profiles.controller';
import { SubmissionsController } from './submissions.controller';
import { SubmissionsModule } from './submissions.module';

/** Submissions over the API. */
@Module({
  imports: [SubmissionsModule],
  controllers: [ProfilesController, SubmissionsController],
})
export class SubmissionsApiModule {}
