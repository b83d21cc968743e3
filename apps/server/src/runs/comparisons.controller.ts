import { Body, Controller, Delete, Get, HttpCode, Inject, Param, Post } from '@nestjs/common';
import { ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import type { CaseResult, ComparisonShape, RouteCaseShape } from '@haycart/api';
import type { JsonValue } from '@haycart/core';
import { IsInt, IsISO8601, IsObject, IsOptional, IsString, IsUUID, Length, Max, Min } from 'class-validator';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Asks, Command, InTransaction, Reads, ThisCommand } from '../platform/commands/command';
import type { RunningCommand } from '../platform/commands/running-command';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { CasesService } from './cases.service';
import { ComparisonsService } from './comparisons.service';

class ComparisonDto {
  @ApiPropertyOptional() @IsOptional() @IsInt() @Min(1) before?: number;
  @ApiPropertyOptional() @IsOptional() @IsInt() @Min(1) after?: number;
  @ApiPropertyOptional() @IsOptional() @IsISO8601() since?: string;
  @ApiPropertyOptional() @IsOptional() @IsISO8601() until?: string;
  @ApiPropertyOptional() @IsOptional() @IsInt() @Min(1) @Max(100_000) last?: number;
}

class NewCaseDto {
  @IsString() @Length(1, 200) name: string;
  @ApiPropertyOptional() @IsOptional() @IsUUID() submissionId?: string;
  @ApiPropertyOptional({ type: Object }) @IsOptional() payload?: JsonValue;
  @ApiPropertyOptional({ type: Object }) @IsOptional() visit?: JsonValue;
}

class CheckCasesDto {
  @ApiPropertyOptional({ type: Object }) @IsOptional() @IsObject() definition?: object;
}

/** Routes rehearsed on many submissions, and on the cases that were agreed on. */
@ApiTags('runs')
@Controller('api/v1/routes/:id')
export class ComparisonsController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(ComparisonsService) private readonly comparisons: ComparisonsService,
    @Inject(CasesService) private readonly cases: CasesService,
  ) {}

  /** Begins to compare two versions over past submissions; read it again to see how far it is. */
  @Post('comparisons')
  @Command('routes.compare', 'Compares two versions of a route over what arrived', { takesLong: true })
  @HttpCode(202)
  begin(
    @ThisCommand() command: RunningCommand,
    @ByCaller() { workspaceId }: Caller,
    @Param('id') id: string,
    @Body() wish: ComparisonDto,
  ): Promise<ComparisonShape> {
    return this.comparisons.begin(workspaceId, id, wish, (tx) => command.note(tx));
  }

  @Get('comparisons/:comparison')
  @Reads('routes', 'Tells how far a comparison is and what it found')
  one(
    @ByCaller() { workspaceId }: Caller,
    @Param('id') id: string,
    @Param('comparison') comparison: string,
  ): Promise<ComparisonShape> {
    return this.database.inWorkspace(workspaceId, (tx) => this.comparisons.one(tx, id, comparison));
  }

  @Post('comparisons/:comparison/cancel')
  @Command('routes.cancel-comparison', 'Cancels a comparison')
  @HttpCode(200)
  cancel(
    @InTransaction() tx: WorkspaceTx,
    @Param('id') id: string,
    @Param('comparison') comparison: string,
  ): Promise<ComparisonShape> {
    return this.comparisons.cancel(tx, id, comparison);
  }

  @Get('cases')
  @Reads('routes', 'Lists the saved cases of a route')
  all(@ByCaller() { workspaceId }: Caller, @Param('id') id: string): Promise<RouteCaseShape[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.cases.all(tx, id));
  }

  @Post('cases')
  @Command('routes.add-case', 'Saves a case of a route')
  @HttpCode(201)
  add(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() { by }: Caller,
    @Param('id') id: string,
    @Body() { name, ...sample }: NewCaseDto,
  ): Promise<RouteCaseShape> {
    return this.cases.add(tx, id, name, sample, by);
  }

  /** What a definition, or else the draft, does with every saved case. */
  @Post('cases/check')
  @Asks('routes', 'Says which saved cases come out as agreed')
  @HttpCode(200)
  check(
    @ByCaller() { workspaceId }: Caller,
    @Param('id') id: string,
    @Body() { definition }: CheckCasesDto,
  ): Promise<CaseResult[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.cases.check(tx, id, definition));
  }

  /** Agrees on what the draft does with a case now. */
  @Post('cases/:case/agree')
  @Command('routes.agree-case', 'Agrees to what a saved case comes out as now')
  @HttpCode(200)
  agree(@InTransaction() tx: WorkspaceTx, @Param('id') id: string, @Param('case') one: string): Promise<CaseResult> {
    return this.cases.agree(tx, id, one);
  }

  @Delete('cases/:case')
  @Command('routes.remove-case', 'Removes a saved case')
  @HttpCode(204)
  remove(@InTransaction() tx: WorkspaceTx, @Param('id') id: string, @Param('case') one: string): Promise<void> {
    return this.cases.remove(tx, id, one);
  }
}
