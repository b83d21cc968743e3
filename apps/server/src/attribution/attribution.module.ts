import { Module } from '@nestjs/common';
import { JourneysService } from './journeys.service';

/** Which touches led to what, kept as they change. */
@Module({
  providers: [JourneysService],
  exports: [JourneysService],
})
export class AttributionModule {}
