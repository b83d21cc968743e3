import { Body, Controller, Get, HttpCode, Inject, Param, Post } from '@nestjs/common';
import { ApiProperty, ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import { RECORD_KINDS, type IdentityKey, type JsonValue, type RecordKind } from '@haycart/core';
import type { KnownShape, PassingShape, Rehearsal, RunShape, TakeBackRehearsal, TakenBack } from '@haycart/api';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsDefined,
  IsIn,
  IsInt,
  IsISO8601,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  Max,
  Min,
  ValidateNested,
} from 'class-validator';
import { Type } from 'class-transformer';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Asks, Command, InTransaction, Reads } from '../platform/commands/command';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { readShape } from '../routes/read-definition';
import { RoutesService } from '../routes/routes.service';
import { PassingService } from './passing.service';
import { RehearsalService } from './rehearsal.service';
import { RunsService } from './runs.service';
import { TakeBackService } from './take-back.service';

class RehearseDto {
  @ApiPropertyOptional() @IsOptional() @IsUUID() submissionId?: string;
  @ApiPropertyOptional({ type: Object }) @IsOptional() payload?: JsonValue;
  @ApiPropertyOptional({ type: Object }) @IsOptional() visit?: JsonValue;
  @ApiPropertyOptional({ type: Object }) @IsOptional() @IsObject() definition?: object;
}

class ConditionDto {
  @ApiProperty({ description: 'A route definition; its onlyWhen is tried.' }) @IsObject() definition: object;
}

class IdentityKeyDto {
  @IsIn(RECORD_KINDS) record: RecordKind;
  @IsString() @Length(1, 200) kind: string;
  @IsString() @Length(1, 1_000) value: string;
}

class BlockDto {
  @IsIn(RECORD_KINDS) record: RecordKind;
  @IsString() @Length(1, 200) block: string;
}

class LookupsDto {
  @ApiProperty({ type: [IdentityKeyDto] })
  @IsArray()
  @ArrayMaxSize(500)
  @ValidateNested({ each: true })
  @Type(() => IdentityKeyDto)
  keys: IdentityKeyDto[];
  @IsBoolean() deals: boolean;
  @ApiPropertyOptional({ type: [BlockDto] })
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(500)
  @ValidateNested({ each: true })
  @Type(() => BlockDto)
  blocks?: BlockDto[];
  @ApiPropertyOptional({ type: [String] })
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(100)
  @Length(1, 300, { each: true })
  counters?: string[];
}

class RunChoiceDto {
  @ApiPropertyOptional({ type: [String] })
  @IsOptional()
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(5_000)
  @IsUUID('all', { each: true })
  runs?: string[];
  @ApiPropertyOptional() @IsOptional() @IsUUID() route?: string;
  @ApiPropertyOptional() @IsOptional() @IsInt() @Min(1) @Max(1_000_000) version?: number;
  @ApiPropertyOptional() @IsOptional() @IsISO8601() since?: string;
  @ApiPropertyOptional() @IsOptional() @IsISO8601() before?: string;
}

class RehearseDefinitionDto extends RehearseDto {
  @IsDefined() @IsObject() declare definition: object;
}

@ApiTags('runs')
@Controller('api/v1')
export class RunsController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(RunsService) private readonly runs: RunsService,
    @Inject(RehearsalService) private readonly rehearsals: RehearsalService,
    @Inject(RoutesService) private readonly routes: RoutesService,
    @Inject(PassingService) private readonly passing: PassingService,
    @Inject(TakeBackService) private readonly takeBacks: TakeBackService,
  ) {}

  @Get('runs/:id')
  @Reads('submissions', 'Shows a run with its account')
  one(@ByCaller() { workspaceId }: Caller, @Param('id') id: string): Promise<RunShape> {
    return this.database.atOneMoment(workspaceId, (tx) => this.runs.one(tx, id));
  }

  /** The same with the account of an attempt that is not the latest. */
  @Get('runs/:id/attempts/:attempt')
  @Reads('submissions', 'Shows a run with the account of one attempt')
  attempt(
    @ByCaller() { workspaceId }: Caller,
    @Param('id') id: string,
    @Param('attempt') attempt: string,
  ): Promise<RunShape> {
    return this.database.atOneMoment(workspaceId, (tx) => this.runs.one(tx, id, attempt));
  }

  /** Has the submission of a run routed again through its route: of one that failed, waits, or was taken back. */
  @Post('runs/:id/run-again')
  @Command('submissions.run-again', 'Has a submission routed again through one route')
  @HttpCode(202)
  runAgain(@InTransaction() tx: WorkspaceTx, @Param('id') id: string): Promise<void> {
    return this.runs.runAgain(tx, id);
  }

  /** What taking back runs would do; nothing is changed. */
  @Post('runs/take-back/rehearse')
  @Asks('routes', 'Rehearses taking runs back')
  @HttpCode(200)
  rehearseTakeBack(@ByCaller() { workspaceId }: Caller, @Body() choice: RunChoiceDto): Promise<TakeBackRehearsal> {
    return this.database.inWorkspace(workspaceId, (tx) => this.takeBacks.rehearse(tx, choice));
  }

  /** Takes back what runs wrote; what was changed since stays. The act can be taken back by its `edit`. */
  @Post('runs/take-back')
  @Command('submissions.take-back', 'Takes back what runs wrote')
  @HttpCode(200)
  takeBack(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() { by }: Caller,
    @Body() choice: RunChoiceDto,
  ): Promise<TakenBack> {
    return this.takeBacks.takeBack(tx, choice, by);
  }

  @Post('routes/:id/rehearse')
  @Asks('routes', 'Rehearses a route')
  @HttpCode(200)
  rehearseRoute(
    @ByCaller() { workspaceId }: Caller,
    @Param('id') id: string,
    @Body() { definition, ...sample }: RehearseDto,
  ): Promise<Rehearsal> {
    return this.database.inWorkspace(workspaceId, async (tx) => {
      const { draft } = await this.routes.one(tx, id);
      return this.rehearsals.rehearse(tx, definition ?? draft, sample);
    });
  }

  /** How many of the latest 1,000 submissions the condition of a route would let through, and which all but pass. */
  @Post('rehearse/passing')
  @Asks('routes', 'Counts which of the latest submissions pass a condition')
  @HttpCode(200)
  passingOf(@ByCaller() { workspaceId }: Caller, @Body() { definition }: ConditionDto): Promise<PassingShape> {
    const route = readShape(definition);
    return this.database.inWorkspace(workspaceId, (tx) => this.passing.count(tx, route, route.onlyWhen ?? { all: [] }));
  }

  /** The existing records that have one of some identity keys, for planning with the same code elsewhere. */
  @Post('rehearse/known')
  @Asks('routes', 'Gives what is known of some identity keys, for planning elsewhere')
  @HttpCode(200)
  known(
    @ByCaller() { workspaceId }: Caller,
    @Body() { keys, deals, blocks = [], counters = [] }: LookupsDto,
  ): Promise<KnownShape> {
    return this.database.inWorkspace(workspaceId, (tx) =>
      this.rehearsals.known(tx, { keys: keys as IdentityKey[], deals, blocks, counters }),
    );
  }

  @Post('rehearse')
  @Asks('routes', 'Rehearses a definition')
  @HttpCode(200)
  rehearse(
    @ByCaller() { workspaceId }: Caller,
    @Body() { definition, ...sample }: RehearseDefinitionDto,
  ): Promise<Rehearsal> {
    return this.database.inWorkspace(workspaceId, (tx) => this.rehearsals.rehearse(tx, definition, sample));
  }
}
