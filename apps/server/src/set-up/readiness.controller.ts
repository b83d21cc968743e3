import { Controller, Get, Inject } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { ReadyCheck } from '@haycart/core';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Database } from '../platform/database/database';
import { ReadinessService } from './readiness.service';
import { Reads } from '../platform/commands/command';

/** Whether a workspace is ready for submissions. */
@ApiTags('set-up')
@Controller('api/v1/set-up/readiness')
export class ReadinessController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(ReadinessService) private readonly ready: ReadinessService,
  ) {}

  @Get()
  @Reads('set-up', 'Tells whether the workspace is ready')
  checks(@ByCaller() { workspaceId }: Caller): Promise<ReadyCheck[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.ready.checks(tx));
  }
}
