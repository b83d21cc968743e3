import { Module } from '@nestjs/common';
import { EventsController } from './events.controller';

/** The stream by which pages hear of changes. */
@Module({ controllers: [EventsController] })
export class EventsModule {}
