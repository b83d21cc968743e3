import { Module } from '@nestjs/common';
import { ChannelRulesModule } from '../channel-rules/channel-rules.module';
import { DestinationModule } from '../destination/destination.module';
import { AttributionController } from './attribution.controller';
import { AttributionModule } from './attribution.module';
import { ChannelRulesController } from './changes/channel-rules.controller';
import { MessagingModule } from '../messaging/messaging.module';
import { ReportMailsController } from './mails/report-mails.controller';
import { ReportMails } from './mails/report-mails.service';
import { JourneyColumnsService } from './columns/journey-columns.service';
import { CostsService } from './costs.service';
import { WorkspacesModule } from '../workspaces/workspaces.module';
import { SourceRecordsService } from './source-records.service';
import { SourcesService } from './sources.service';
import { UnknownService } from './unknown.service';

/** What the page Sources asks for. */
@Module({
  imports: [AttributionModule, ChannelRulesModule, DestinationModule, MessagingModule, WorkspacesModule],
  controllers: [AttributionController, ChannelRulesController, ReportMailsController],
  providers: [CostsService, JourneyColumnsService, ReportMails, SourceRecordsService, SourcesService, UnknownService],
})
export class AttributionApiModule {}
