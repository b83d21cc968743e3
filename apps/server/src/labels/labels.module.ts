import { Module } from '@nestjs/common';
import { LabelsService } from './labels.service';

/** Tags and lists. */
@Module({
  providers: [LabelsService],
  exports: [LabelsService],
})
export class LabelsModule {}
