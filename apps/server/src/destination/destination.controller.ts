import { Controller, Get, Inject } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Destination } from '@haycart/core';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Reads } from '../platform/commands/command';
import { Database } from '../platform/database/database';
import { DestinationService } from './destination.service';

@ApiTags('workspace')
@Controller('api/v1')
export class DestinationController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(DestinationService) private readonly destinations: DestinationService,
  ) {}

  /** All that routes are planned against, as it is when they run: a rehearsal elsewhere needs the same. */
  @Get('destination')
  @Reads('set-up', 'Gives all that routes are planned against')
  destination(@ByCaller() { workspaceId }: Caller): Promise<Destination> {
    return this.database.inWorkspace(workspaceId, (tx) => this.destinations.load(tx));
  }
}
