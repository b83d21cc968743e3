import { Module } from '@nestjs/common';
import { FieldsService } from './fields.service';

/** The fields of records. */
@Module({
  providers: [FieldsService],
  exports: [FieldsService],
})
export class FieldsModule {}
