import { Controller, Get, Inject } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { ReadyCheck } from '@haycart/core';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Database } from '../platform/database/database';
import { ReadinessService } from './readiness.service';

/** Whether a workspace is ready for submissions. */
@ApiTags('set-up')
@Controller('api/v1/set-up/readiness')
export class ReadinessController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(ReadinessService) private readonly ready: ReadinessService,
  ) {}

  @Get()
  checks(@ByCaller() { workspaceId }: Caller): Promise<ReadyCheck[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.ready.checks(tx));
  }
}
