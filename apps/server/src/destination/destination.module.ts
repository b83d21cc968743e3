import { Module } from '@nestjs/common';
import { CampaignsModule } from '../campaigns/campaigns.module';
import { ChannelRulesModule } from '../channel-rules/channel-rules.module';
import { FieldsModule } from '../fields/fields.module';
import { IntakesModule } from '../intakes/intakes.module';
import { LabelsModule } from '../labels/labels.module';
import { MessagingModule } from '../messaging/messaging.module';
import { PipelinesModule } from '../pipelines/pipelines.module';
import { RecognitionModule } from '../recognition/recognition.module';
import { ValueSetsModule } from '../value-sets/value-sets.module';
import { WorkspacesModule } from '../workspaces/workspaces.module';
import { DestinationService } from './destination.service';

/** What a workspace has prepared for its records. */
@Module({
  imports: [
    CampaignsModule,
    ChannelRulesModule,
    FieldsModule,
    IntakesModule,
    LabelsModule,
    MessagingModule,
    PipelinesModule,
    RecognitionModule,
    ValueSetsModule,
    WorkspacesModule,
  ],
  providers: [DestinationService],
  exports: [DestinationService],
})
export class DestinationModule {}
