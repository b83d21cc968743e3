import { Module } from '@nestjs/common';
import { FieldsModule } from '../fields/fields.module';
import { DestinationController } from './destination.controller';
import { DestinationModule } from './destination.module';
import { FieldsController } from './fields.controller';

/** What a workspace has prepared, over the API. */
@Module({
  imports: [DestinationModule, FieldsModule],
  controllers: [DestinationController, FieldsController],
})
export class DestinationApiModule {}
