import { Module } from '@nestjs/common';
import { DestinationModule } from '../destination/destination.module';
import { ViewsController } from './views.controller';
import { ViewsService } from './views.service';

/** Saved views of lists. */
@Module({
  imports: [DestinationModule],
  controllers: [ViewsController],
  providers: [ViewsService],
  exports: [ViewsService],
})
export class ViewsModule {}
