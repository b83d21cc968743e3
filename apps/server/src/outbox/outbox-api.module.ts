import { Module } from '@nestjs/common';
import { OutboxController } from './outbox.controller';
import { OutboxModule } from './outbox.module';

/** The outbox over the API. */
@Module({
  imports: [OutboxModule],
  controllers: [OutboxController],
})
export class OutboxApiModule {}
