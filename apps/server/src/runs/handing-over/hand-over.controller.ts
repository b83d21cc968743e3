import { Body, Controller, HttpCode, Inject, Param, Post } from '@nestjs/common';
import { ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import type { NamedOwner } from '@haycart/core';
import type { DoneEdit, HandOverPlan } from '@haycart/api';
import { IsIn, IsOptional, IsString, Length } from 'class-validator';
import { ByCaller, type Caller } from '../../platform/auth/caller';
import { NeedsPerson } from '../../platform/auth/marks';
import { Asks, Command, InTransaction } from '../../platform/commands/command';
import { Database, type WorkspaceTx } from '../../platform/database/database';
import { ProblemError } from '../../platform/errors/problem-error';
import { HandOverService } from './hand-over.service';

class HandOverDto {
  @ApiPropertyOptional({ description: 'The key of whoever gets all of it' })
  @IsOptional()
  @IsString()
  @Length(1, 100)
  person?: string;
  @ApiPropertyOptional({ description: 'The key of a team whose people get it' })
  @IsOptional()
  @IsString()
  @Length(1, 100)
  team?: string;
  @ApiPropertyOptional({ enum: ['load'], description: 'Whoever has the least first; in turn when not said' })
  @IsOptional()
  @IsIn(['load'])
  by?: 'load';
}

/** Giving what somebody looks after to others. */
@ApiTags('people')
@Controller('api/v1/people/:key/hand-over')
export class HandOverController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(HandOverService) private readonly handing: HandOverService,
  ) {}

  @Post('rehearse')
  @Asks('people', 'Rehearses giving what somebody looks after to others')
  @HttpCode(200)
  rehearse(
    @ByCaller() { workspaceId }: Caller,
    @Param('key') key: string,
    @Body() to: HandOverDto,
  ): Promise<HandOverPlan> {
    return this.database.inWorkspace(workspaceId, (tx) => this.handing.rehearse(tx, key, ruleOf(to)));
  }

  /** Open leads, deals and tasks. The act can be taken back by its `edit`. */
  @Post()
  @Command('people.hand-over', 'Gives what somebody looks after to others', { tells: ['records', 'tasks'] })
  @NeedsPerson()
  @HttpCode(200)
  handOver(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() { by }: Caller,
    @Param('key') key: string,
    @Body() to: HandOverDto,
  ): Promise<DoneEdit> {
    return this.handing.handOver(tx, key, ruleOf(to), by);
  }
}

function ruleOf({ person, team, by }: HandOverDto): NamedOwner {
  if (person !== undefined && team === undefined) return { person };
  if (team !== undefined && person === undefined) return { team, ...(by ? { by } : {}) };
  throw new ProblemError('refused', 'Choose one person, or one team.', [
    { at: '/person', code: 'unknown-person', message: 'Name either a person or a team.' },
  ]);
}
