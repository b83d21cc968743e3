import { Body, Controller, Get, HttpCode, Inject, Param, Post } from '@nestjs/common';
import { ApiProperty, ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import {
  DECISION_ACTIONS,
  type Decided,
  type DecisionAction,
  type DecisionLine,
  type DecisionShape,
} from '@haycart/api';
import type { FieldValue, JsonValue } from '@haycart/core';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Length,
} from 'class-validator';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Command, InTransaction, Reads } from '../platform/commands/command';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { DecisionsService } from './decisions.service';

class DecideDto {
  @ApiProperty({ type: [String] })
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(200)
  @IsString({ each: true })
  @Length(1, 100, { each: true })
  ids: string[];
  @ApiProperty({ enum: DECISION_ACTIONS }) @IsIn(DECISION_ACTIONS) action: DecisionAction;
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
  lines(@ByCaller() { workspaceId }: Caller): Promise<DecisionLine[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.decisions.lines(tx));
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
