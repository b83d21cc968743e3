import { Module, type Type } from '@nestjs/common';
import { MessagingModule } from '../messaging/messaging.module';
import { RecordsModule } from '../records/records.module';
import { OutboxQueue } from './outbox-queue';
import { OutboxSender } from './outbox-sender.service';
import { OutboxService } from './outbox.service';
import { MailConsent } from './performers/mail-consent.service';
import { PERFORMERS, type Performer } from './performers/performer';
import { PERFORMER_CLASSES } from './performers/registry';
import { ReturnAddresses } from './returns/return-addresses';
import { SigningSecrets } from './signing-secrets.service';

/** What runs send to the outside. Others put things out by its service and know nothing of how they are sent. */
@Module({
  imports: [MessagingModule, RecordsModule],
  providers: [
    ...(PERFORMER_CLASSES as Type<Performer>[]),
    { provide: PERFORMERS, useFactory: (...all: Performer[]) => all, inject: PERFORMER_CLASSES },
    MailConsent,
    OutboxQueue,
    OutboxSender,
    OutboxService,
    ReturnAddresses,
    SigningSecrets,
  ],
  exports: [OutboxService, ReturnAddresses, SigningSecrets],
})
export class OutboxModule {}
