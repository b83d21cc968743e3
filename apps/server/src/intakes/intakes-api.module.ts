import { Module } from '@nestjs/common';
import { IntakesController } from './intakes.controller';
import { IntakesModule } from './intakes.module';

/** Intakes over the API. */
@Module({
  imports: [IntakesModule],
  controllers: [IntakesController],
})
export class IntakesApiModule {}
