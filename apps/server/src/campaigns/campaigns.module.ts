import { Module } from '@nestjs/common';
import { WorkspacesModule } from '../workspaces/workspaces.module';
import { CampaignCosts } from './campaign-costs.service';
import { CampaignLinks } from './campaign-links.service';
import { CampaignsService } from './campaigns.service';
import { LinkRulesService } from './link-rules.service';
import { WrongLinks } from './wrong-links.service';

/** The register of campaigns with their costs and links. */
@Module({
  imports: [WorkspacesModule],
  providers: [CampaignCosts, CampaignLinks, CampaignsService, LinkRulesService, WrongLinks],
  exports: [CampaignCosts, CampaignLinks, CampaignsService, LinkRulesService, WrongLinks],
})
export class CampaignsModule {}
