import { Module } from '@nestjs/common';
import { WorkspacesModule } from '../workspaces/workspaces.module';
import { RoutesController } from './routes.controller';
import { RoutesModule } from './routes.module';
import { SchemaController } from './schema.controller';

/** Routes over the API. */
@Module({
  imports: [RoutesModule, WorkspacesModule],
  controllers: [RoutesController, SchemaController],
})
export class RoutesApiModule {}
