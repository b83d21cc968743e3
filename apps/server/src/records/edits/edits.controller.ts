import { Controller, Get, HttpCode, Inject, Param, Post, Query } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { DoneEdit, EditLine } from '@haycart/api';
import { IsOptional, IsString } from 'class-validator';
import { ByCaller, type Caller } from '../../platform/auth/caller';
import { Command, InTransaction, Reads } from '../../platform/commands/command';
import { Database, type WorkspaceTx } from '../../platform/database/database';
import { readLimit } from '../../platform/paging';
import { RecordActs } from './record-acts.service';

class LatestDto {
  @IsOptional() @IsString() limit?: string;
}

/** What people did to records, and taking it back. */
@ApiTags('records')
@Controller('api/v1/edits')
export class EditsController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(RecordActs) private readonly acts: RecordActs,
  ) {}

  @Get()
  @Reads('records', 'Lists the latest acts')
  latest(@ByCaller() { workspaceId }: Caller, @Query() { limit }: LatestDto): Promise<EditLine[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.acts.latest(tx, readLimit(limit)));
  }

  /** What was changed since stays; `left` tells how much. */
  @Post(':id/take-back')
  @Command('records.take-back', 'Takes an act back')
  @HttpCode(200)
  takeBack(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() { by }: Caller,
    @Param('id') id: string,
  ): Promise<DoneEdit & { left: number }> {
    return this.acts.takeBack(tx, id, by);
  }
}
