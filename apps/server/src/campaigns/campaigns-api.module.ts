import { Module } from '@nestjs/common';
import { WorkspacesModule } from '../workspaces/workspaces.module';
import { CampaignsController } from './campaigns.controller';
import { CampaignsModule } from './campaigns.module';
import { CostsController } from './costs.controller';

/** What the pages of campaigns ask for. */
@Module({
  imports: [CampaignsModule, WorkspacesModule],
  controllers: [CampaignsController, CostsController],
})
export class CampaignsApiModule {}
