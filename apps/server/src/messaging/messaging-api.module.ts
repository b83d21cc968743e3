import { Module } from '@nestjs/common';
import { ChannelsController } from './channels.controller';
import { WorkspacesModule } from '../workspaces/workspaces.module';
import { MailFilesController } from './mail/mail-files.controller';
import { MailController } from './mail/mail.controller';
import { MessagingModule } from './messaging.module';

/** Channels and mail over the API. */
@Module({
  imports: [MessagingModule, WorkspacesModule],
  controllers: [ChannelsController, MailController, MailFilesController],
})
export class MessagingApiModule {}
