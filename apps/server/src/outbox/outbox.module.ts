import { Module, type DynamicModule, type Type } from '@nestjs/common';
import type { Config } from '../platform/config';
import { OutboxController } from './outbox.controller';
import { OutboxSender } from './outbox-sender.service';
import { OutboxService } from './outbox.service';
import { PERFORMERS, type Performer } from './performers/performer';
import { PERFORMER_CLASSES } from './performers/registry';
import { SigningSecrets } from './signing-secrets.service';

/** What runs send to the outside. Others put things out by its service and know nothing of how they are sent. */
@Module({})
export class OutboxModule {
  static with({ role }: Config): DynamicModule {
    return {
      module: OutboxModule,
      controllers: role === 'all' || role === 'web' ? [OutboxController] : [],
      providers: [
        ...(PERFORMER_CLASSES as Type<Performer>[]),
        { provide: PERFORMERS, useFactory: (...all: Performer[]) => all, inject: PERFORMER_CLASSES },
        OutboxSender,
        OutboxService,
        SigningSecrets,
      ],
      exports: [OutboxService],
    };
  }
}
