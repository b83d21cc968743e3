import { Controller, Get, Inject, Param } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { PipelineGrid } from '@haycart/api';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Database } from '../platform/database/database';
import { DealGridService } from './deal-grid.service';

/** What stands in a pipeline's stages. */
@ApiTags('pipelines')
@Controller('api/v1/pipelines')
export class StagesController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(DealGridService) private readonly grids: DealGridService,
  ) {}

  @Get(':id/grid')
  grid(@ByCaller() { workspaceId }: Caller, @Param('id') id: string): Promise<PipelineGrid> {
    return this.database.inWorkspace(workspaceId, (tx) => this.grids.grid(tx, id));
  }
}
