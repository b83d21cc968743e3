import { Body, Controller, Get, HttpCode, Inject, Param, Post, Query } from '@nestjs/common';
import { ApiProperty, ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import type { Decided, DecisionList, DecisionShape } from '@haycart/api';
import type { FieldValue, JsonValue } from '@haycart/core';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Length,
} from 'class-validator';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Command, InTransaction, Reads } from '../platform/commands/command';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { readLimit } from '../platform/paging';
import { DecisionsService } from './decisions.service';

/** As many as one page shows, and the most that it can be asked for. */
const LISTED = { usual: 200, most: 1_000 };

class ListDto {
  @ApiPropertyOptional({ description: 'From 1 to 1,000; 200, when not given.' })
  @IsOptional()
  @IsString()
  limit?: string;
}

class DecideDto {
  @ApiProperty({ type: [String] })
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(200)
  @IsString({ each: true })
  @Length(1, 100, { each: true })
  ids: string[];
  @ApiProperty({ description: 'One of the choices of the decision' }) @IsString() @Length(1, 40) action: string;
  @ApiPropertyOptional({ description: 'For a new answer: the key of the option that it means.' })
  @IsOptional()
  @IsString()
  @Length(1, 200)
  option?: string;
  @ApiPropertyOptional({ description: 'The record that a submission means, or that stays when two become one.' })
  @IsOptional()
  @IsUUID()
  record?: string;
  @ApiPropertyOptional({ type: Object, description: 'Values chosen otherwise than by the rules; null is blank.' })
  @IsOptional()
  @IsObject()
  values?: Record<string, JsonValue>;
  @ApiPropertyOptional({ description: 'Why, where a reason is kept.' })
  @IsOptional()
  @IsString()
  @Length(0, 1_000)
  note?: string;
  @ApiPropertyOptional({ description: 'Whether all that hangs together becomes one.' })
  @IsOptional()
  @IsBoolean()
  whole?: boolean;
}

/** What waits for a person: listed, looked at, decided. */
@ApiTags('decisions')
@Controller('api/v1/decisions')
export class DecisionsController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(DecisionsService) private readonly decisions: DecisionsService,
  ) {}

  @Get()
  @Reads('decisions', 'Lists what waits for a person')
  list(@ByCaller() { workspaceId }: Caller, @Query() { limit }: ListDto): Promise<DecisionList> {
    const most = readLimit(limit, LISTED);
    return this.database.inWorkspace(workspaceId, (tx) => this.decisions.list(tx, most));
  }

  @Get(':id')
  @Reads('decisions', 'Shows one thing that waits, with its examples and what can be done')
  one(@ByCaller() { workspaceId }: Caller, @Param('id') id: string): Promise<DecisionShape> {
    return this.database.inWorkspace(workspaceId, (tx) => this.decisions.one(tx, id));
  }

  /** Decides one, or several that are alike, in one transaction. */
  @Post('decide')
  @Command('decisions.decide', 'Decides what waits for a person')
  @HttpCode(200)
  decide(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() { by }: Caller,
    @Body() { ids, values, ...verdict }: DecideDto,
  ): Promise<Decided> {
    const chosen = values as Record<string, FieldValue | null> | undefined;
    return this.decisions.decide(tx, ids, { ...verdict, values: chosen }, by);
  }
}
