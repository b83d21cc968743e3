import { Module } from '@nestjs/common';
import { WorkspacesModule } from '../workspaces/workspaces.module';
import { ChannelsService } from './channels.service';
import { MailFiles } from './mail/mail-files.service';
import { MailServers } from './mail/mail-servers.service';
import { MailTemplates } from './mail/mail-templates.service';
import { MailsService } from './mail/mails.service';
import { MessagesService } from './messages.service';

/** Chats and phones that messages go to, and mail. */
@Module({
  imports: [WorkspacesModule],
  providers: [ChannelsService, MailFiles, MailServers, MailsService, MailTemplates, MessagesService],
  exports: [ChannelsService, MailFiles, MailServers, MailsService, MailTemplates, MessagesService],
})
export class MessagingModule {}
