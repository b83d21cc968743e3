import { Controller, Get, Inject } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { FieldShape } from '@haycart/api';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Database } from '../platform/database/database';
import { DestinationService } from './destination.service';
import { FieldsService } from '../fields/fields.service';
import { Reads } from '../platform/commands/command';

@ApiTags('fields')
@Controller('api/v1/fields')
export class FieldsController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(FieldsService) private readonly fields: FieldsService,
  ) {}

  @Get()
  @Reads('records', 'Lists the fields of records')
  all(@ByCaller() { workspaceId }: Caller): Promise<FieldShape[]> {
    return this.database.inWorkspace(workspaceId, async (tx) =>
      this.destinations.chosen(tx, await this.fields.all(tx)),
    );
  }
}
