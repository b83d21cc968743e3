import { Controller, Delete, Get, HttpCode, Inject, Param } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { PipelineGrid } from '@haycart/api';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Database } from '../platform/database/database';
import { Events } from '../platform/events/events';
import { PipelinesService } from '../pipelines/pipelines.service';
import { DealGridService } from './deal-grid.service';
import { RecordsService } from './records.service';

/** What stands in a pipeline's stages. */
@ApiTags('pipelines')
@Controller('api/v1/pipelines')
export class StagesController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(PipelinesService) private readonly pipelines: PipelinesService,
    @Inject(RecordsService) private readonly records: RecordsService,
    @Inject(DealGridService) private readonly grids: DealGridService,
    @Inject(Events) private readonly events: Events,
  ) {}

  @Get(':id/grid')
  grid(@ByCaller() { workspaceId }: Caller, @Param('id') id: string): Promise<PipelineGrid> {
    return this.database.inWorkspace(workspaceId, (tx) => this.grids.grid(tx, id));
  }

  @Delete(':id/stages/:key')
  @HttpCode(204)
  async removeStage(
    @ByCaller() { workspaceId }: Caller,
    @Param('id') id: string,
    @Param('key') key: string,
  ): Promise<void> {
    await this.database.inWorkspace(workspaceId, async (tx) => {
      const pipeline = await this.pipelines.one(tx, id);
      await this.pipelines.removeStage(tx, id, key, await this.records.countInStage(tx, pipeline.key, key));
      await this.events.tell(tx, 'pipelines');
    });
  }
}
