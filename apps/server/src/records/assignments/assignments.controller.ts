import { Controller, Get, Inject, Query } from '@nestjs/common';
import { ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import type { AnswerLine, Fairness, GivenLine } from '@haycart/api';
import { Type } from 'class-transformer';
import { IsInt, IsOptional, IsString, Max, Min } from 'class-validator';
import { ByCaller, type Caller } from '../../platform/auth/caller';
import { Reads } from '../../platform/commands/command';
import { Database } from '../../platform/database/database';
import { AnswersService } from './answers.service';
import { FairnessService } from './fairness.service';

const MOST_DAYS = 366;
const USUAL_DAYS = 30;
/** How many that wait for an answer are told of. */
const ANSWERS = 50;
/** Of how many that were given last it is told why. */
const LATEST = 20;

class AnswersQuery {
  @ApiPropertyOptional({ description: 'The key of a person; everybody’s when not said' })
  @IsOptional()
  @IsString()
  owner?: string;
}

class FairnessQuery {
  @ApiPropertyOptional({ minimum: 1, maximum: MOST_DAYS })
  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(1)
  @Max(MOST_DAYS)
  days?: number;
}

class GivenQuery {
  @ApiPropertyOptional({ description: 'The key of a team; all when not said' }) @IsOptional() @IsString() team?: string;
}

/** Who was given what, and what waits for an answer. */
@ApiTags('assignments')
@Controller('api/v1')
export class AssignmentsController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(AnswersService) private readonly answers: AnswersService,
    @Inject(FairnessService) private readonly fairness: FairnessService,
  ) {}

  /** At most fifty: the next due first, then what is late. */
  @Get('answers')
  @Reads('records', 'Lists what waits for its first answer')
  open(@ByCaller() { workspaceId }: Caller, @Query() { owner }: AnswersQuery): Promise<AnswerLine[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.answers.open(tx, owner ?? null, ANSWERS));
  }

  @Get('fairness')
  @Reads('records', 'Tells who was given how much')
  fair(@ByCaller() { workspaceId }: Caller, @Query() { days = USUAL_DAYS }: FairnessQuery): Promise<Fairness> {
    return this.database.inWorkspace(workspaceId, (tx) => this.fairness.of(tx, days));
  }

  /** The last twenty. */
  @Get('fairness/latest')
  @Reads('records', 'Tells what was given last, and why')
  latest(@ByCaller() { workspaceId }: Caller, @Query() { team }: GivenQuery): Promise<GivenLine[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.fairness.latest(tx, team ?? null, LATEST));
  }
}
