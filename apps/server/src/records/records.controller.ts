import { Body, Controller, Get, HttpCode, Inject, Param, Post, Query } from '@nestjs/common';
import { ApiProperty, ApiTags } from '@nestjs/swagger';
import type { RecordKind } from '@haycart/core';
import type { HistoryEntry, Page, RecordShape, TouchShape } from '@haycart/api';
import { IsOptional, IsString, Length } from 'class-validator';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Database } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { readCursor, readLimit } from '../platform/paging';
import { DestinationService } from '../workspaces/destination.service';
import { DealMovesService } from './deal-moves.service';
import { RecordsService } from './records.service';

class RecordQuery {
  @IsOptional() @IsString() @Length(0, 400) email?: string;
  @IsOptional() @IsString() @Length(0, 100) phone?: string;
  @IsOptional() @IsString() @Length(0, 400) q?: string;
  @IsOptional() @IsString() limit?: string;
  @IsOptional() @IsString() after?: string;
}

class MoveDto {
  @ApiProperty() @IsString() @Length(1, 100) stage: string;
}

const KINDS: Record<string, RecordKind> = { contacts: 'contact', companies: 'company', leads: 'lead', deals: 'deal' };

function kindFrom(plural: string): RecordKind {
  const kind = Object.hasOwn(KINDS, plural) ? KINDS[plural] : undefined;
  if (!kind) throw new ProblemError('not-found', 'There is nothing at this address.');
  return kind;
}

@ApiTags('records')
@Controller('api/v1')
export class RecordsController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(RecordsService) private readonly records: RecordsService,
    @Inject(DealMovesService) private readonly moves: DealMovesService,
    @Inject(DestinationService) private readonly destinations: DestinationService,
  ) {}

  @Get(':kind')
  list(
    @ByCaller() { workspaceId }: Caller,
    @Param('kind') kind: string,
    @Query() { limit, after, ...filter }: RecordQuery,
  ): Promise<Page<RecordShape>> {
    return this.database.inWorkspace(workspaceId, async (tx) => {
      const { defaultCountry } = await this.destinations.load(tx);
      return this.records.list(tx, kindFrom(kind), filter, defaultCountry, readLimit(limit), readCursor(after));
    });
  }

  @Get(':kind/:id')
  one(@ByCaller() { workspaceId }: Caller, @Param('kind') kind: string, @Param('id') id: string): Promise<RecordShape> {
    return this.database.inWorkspace(workspaceId, (tx) => this.records.one(tx, kindFrom(kind), id));
  }

  @Get(':kind/:id/history')
  history(
    @ByCaller() { workspaceId }: Caller,
    @Param('kind') kind: string,
    @Param('id') id: string,
  ): Promise<HistoryEntry[]> {
    return this.database.inWorkspace(workspaceId, async (tx) =>
      this.records.history(tx, kindFrom(kind), id, await this.destinations.load(tx)),
    );
  }

  @Get(':kind/:id/touches')
  touches(@ByCaller() { workspaceId }: Caller, @Param('id') id: string): Promise<TouchShape[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.records.touches(tx, id));
  }

  @Post('deals/:id/move')
  @HttpCode(200)
  move(@ByCaller() caller: Caller, @Param('id') id: string, @Body() { stage }: MoveDto): Promise<RecordShape> {
    if (caller.by.kind !== 'person')
      throw new ProblemError('not-allowed', 'A deal is moved by a person who is signed in.');
    const by = caller.by.id;
    return this.database.inWorkspace(caller.workspaceId, async (tx) => {
      await this.moves.move(tx, id, stage, by, new Date().toISOString());
      return this.records.one(tx, 'deal', id);
    });
  }
}
