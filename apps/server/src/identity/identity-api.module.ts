import { Module } from '@nestjs/common';
import { RecognitionModule } from '../recognition/recognition.module';
import { WorkspacesModule } from '../workspaces/workspaces.module';
import { IdentityController } from './identity.controller';
import { IdentityModule } from './identity.module';

/** Recognition over the API. */
@Module({
  imports: [IdentityModule, RecognitionModule, WorkspacesModule],
  controllers: [IdentityController],
})
export class IdentityApiModule {}
