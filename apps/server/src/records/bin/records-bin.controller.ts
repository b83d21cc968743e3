import { Body, Controller, Get, HttpCode, Inject, Post, Query } from '@nestjs/common';
import { ApiProperty, ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import { RECORD_KINDS, type RecordKind } from '@haycart/core';
import type { DeletedRecord, DoneEdit, Page } from '@haycart/api';
import { ArrayMaxSize, ArrayMinSize, IsArray, IsIn, IsOptional, IsString, IsUUID } from 'class-validator';
import { ByCaller, type Caller } from '../../platform/auth/caller';
import { Command, InTransaction, Reads } from '../../platform/commands/command';
import { Database, type WorkspaceTx } from '../../platform/database/database';
import { readCursor, readLimit } from '../../platform/paging';
import { RecordsBin } from './records-bin.service';

const MOST_AT_ONCE = 200;

class ListDto {
  @ApiProperty({ enum: RECORD_KINDS }) @IsIn(RECORD_KINDS) kind: RecordKind;
  @ApiPropertyOptional() @IsOptional() @IsString() after?: string;
  @ApiPropertyOptional() @IsOptional() @IsString() limit?: string;
}

class BringBackDto {
  @ApiProperty({ type: [String] })
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(MOST_AT_ONCE)
  @IsUUID(undefined, { each: true })
  ids: string[];
}

/** What was deleted by people, and bringing it back. */
@ApiTags('records')
@Controller('api/v1/deleted-records')
export class RecordsBinController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(RecordsBin) private readonly bin: RecordsBin,
  ) {}

  @Get()
  @Reads('records', 'Lists deleted records')
  list(@ByCaller() { workspaceId }: Caller, @Query() { kind, after, limit }: ListDto): Promise<Page<DeletedRecord>> {
    return this.database.inWorkspace(workspaceId, (tx) => this.bin.list(tx, kind, readCursor(after), readLimit(limit)));
  }

  @Post('bring-back')
  @Command('records.bring-back', 'Brings deleted records back')
  @HttpCode(200)
  bringBack(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() { by }: Caller,
    @Body() { ids }: BringBackDto,
  ): Promise<DoneEdit> {
    return this.bin.bringBack(tx, ids, by);
  }
}
