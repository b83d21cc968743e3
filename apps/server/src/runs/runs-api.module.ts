import { Module } from '@nestjs/common';
import { RoutesModule } from '../routes/routes.module';
import { CatchingUpController } from './catching-up/catching-up.controller';
import { ComparisonsController } from './comparisons.controller';
import { HandOverController } from './handing-over/hand-over.controller';
import { RunsController } from './runs.controller';
import { RunsModule } from './runs.module';

/** Runs over the API. */
@Module({
  imports: [RoutesModule, RunsModule],
  controllers: [CatchingUpController, ComparisonsController, HandOverController, RunsController],
})
export class RunsApiModule {}
