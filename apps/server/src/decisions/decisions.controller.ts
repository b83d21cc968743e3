import { Body, Controller, Get, HttpCode, Inject, Param, Post } from '@nestjs/common';
import { ApiProperty, ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import {
  DECISION_ACTIONS,
  type Decided,
  type DecisionAction,
  type DecisionLine,
  type DecisionShape,
} from '@haycart/api';
import { ArrayMaxSize, ArrayMinSize, IsArray, IsIn, IsOptional, IsString, Length } from 'class-validator';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Database } from '../platform/database/database';
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
  lines(@ByCaller() { workspaceId }: Caller): Promise<DecisionLine[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.decisions.lines(tx));
  }

  @Get(':id')
  one(@ByCaller() { workspaceId }: Caller, @Param('id') id: string): Promise<DecisionShape> {
    return this.database.inWorkspace(workspaceId, (tx) => this.decisions.one(tx, id));
  }

  /** Decides one, or several that are alike, in one transaction. */
  @Post('decide')
  @HttpCode(200)
  decide(@ByCaller() { workspaceId, by }: Caller, @Body() { ids, action, option }: DecideDto): Promise<Decided> {
    return this.database.inWorkspace(workspaceId, (tx) => this.decisions.decide(tx, ids, { action, option }, by));
  }
}
