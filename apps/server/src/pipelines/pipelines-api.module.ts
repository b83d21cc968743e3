import { Module } from '@nestjs/common';
import { PipelinesController } from './pipelines.controller';
import { PipelinesModule } from './pipelines.module';

/** Pipelines over the API. */
@Module({
  imports: [PipelinesModule],
  controllers: [PipelinesController],
})
export class PipelinesApiModule {}
