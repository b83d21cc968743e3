import { Controller, Get, Inject } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { PipelineShape } from '@haycart/api';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Database } from '../platform/database/database';
import { PipelinesService } from './pipelines.service';
import { Reads } from '../platform/commands/command';

@ApiTags('pipelines')
@Controller('api/v1/pipelines')
export class PipelinesController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(PipelinesService) private readonly pipelines: PipelinesService,
  ) {}

  @Get()
  @Reads('records', 'Lists pipelines with their stages')
  all(@ByCaller() { workspaceId }: Caller): Promise<PipelineShape[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.pipelines.all(tx));
  }
}
