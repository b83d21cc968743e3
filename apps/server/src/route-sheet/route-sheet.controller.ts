import { Controller, Get, Inject, Param } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { RouteSheetShape } from '@haycart/api';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Database } from '../platform/database/database';
import { RouteSheetService } from './route-sheet.service';
import { Reads } from '../platform/commands/command';

@ApiTags('routes')
@Controller('api/v1/routes/:id/sheet')
export class RouteSheetController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(RouteSheetService) private readonly sheets: RouteSheetService,
  ) {}

  /** Everything that the page of a route shows when it is opened. */
  @Get()
  @Reads('routes', 'Shows all that a route’s page has')
  sheet(@ByCaller() { workspaceId }: Caller, @Param('id') id: string): Promise<RouteSheetShape> {
    return this.database.inWorkspace(workspaceId, (tx) => this.sheets.sheet(tx, id));
  }
}
