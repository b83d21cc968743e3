import { Module } from '@nestjs/common';
import { DestinationModule } from '../destination/destination.module';
import { AttributionController } from './attribution.controller';
import { AttributionModule } from './attribution.module';
import { SourceRecordsService } from './source-records.service';
import { SourcesService } from './sources.service';

/** What the page Sources asks for. */
@Module({
  imports: [AttributionModule, DestinationModule],
  controllers: [AttributionController],
  providers: [SourcesService, SourceRecordsService],
})
export class AttributionApiModule {}
