import { Module } from '@nestjs/common';
import { PipelinesService } from './pipelines.service';
import { PipelinesStore } from './pipelines.store';

/** Pipelines and their stages. */
@Module({
  providers: [PipelinesService, PipelinesStore],
  exports: [PipelinesService],
})
export class PipelinesModule {}
