import { Module } from '@nestjs/common';
import { RunCounts } from './run-counts.service';

/** How many runs ended how. */
@Module({
  providers: [RunCounts],
  exports: [RunCounts],
})
export class CountsModule {}
