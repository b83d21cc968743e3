import { Module } from '@nestjs/common';
import { OutboxController } from './outbox.controller';
import { OutboxModule } from './outbox.module';
import { ReturnNotes } from './returns/return-notes.service';
import { ReturnedMail } from './returns/returned-mail.service';

/** The outbox over the API, and where its mails come back to. */
@Module({
  imports: [OutboxModule],
  controllers: [OutboxController],
  providers: [ReturnedMail, ReturnNotes],
})
export class OutboxApiModule {}
