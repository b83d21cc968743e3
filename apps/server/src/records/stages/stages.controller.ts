import { Controller, Get, Inject, Param, Query } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { PipelineGrid } from '@haycart/api';
import { Type } from 'class-transformer';
import { IsInt, IsOptional, IsString, Length, Max, Min } from 'class-validator';
import { ByCaller, type Caller } from '../../platform/auth/caller';
import { Database } from '../../platform/database/database';
import { DestinationService } from '../../destination/destination.service';
import { PeopleService } from '../../workspaces/people.service';
import { DealGridService } from './deal-grid.service';
import { listSetting } from '../lists/list-setting';
import { Reads } from '../../platform/commands/command';

class GridDto {
  @IsOptional() @IsString() @Length(0, 400) q?: string;
  @IsOptional() @IsString() @Length(0, 20_000) filter?: string;
  /** How many days back conversion and what was closed are counted. */
  @IsOptional() @Type(() => Number) @IsInt() @Min(1) @Max(3_650) days?: number;
}

/** What stands in a pipeline's stages. */
@ApiTags('pipelines')
@Controller('api/v1/pipelines')
export class StagesController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(DealGridService) private readonly grids: DealGridService,
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(PeopleService) private readonly people: PeopleService,
  ) {}

  @Get(':id/grid')
  @Reads('records', 'Shows a pipeline with its open records by stage')
  grid(
    @ByCaller() { workspaceId, by }: Caller,
    @Param('id') id: string,
    @Query() { days = 90, ...query }: GridDto,
  ): Promise<PipelineGrid> {
    return this.database.inWorkspace(workspaceId, async (tx) => {
      const me = by.kind === 'person' ? (await this.people.one(tx, by.id))?.key : undefined;
      const setting = listSetting(await this.destinations.load(tx), me);
      return this.grids.grid(tx, id, { query, days }, setting);
    });
  }
}
