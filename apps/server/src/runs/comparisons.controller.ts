import { Body, Controller, Delete, Get, HttpCode, Inject, Param, Post } from '@nestjs/common';
import { ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import type { CaseResult, ComparisonShape, RouteCaseShape } from '@haycart/api';
import type { JsonValue } from '@haycart/core';
import { IsInt, IsISO8601, IsObject, IsOptional, IsString, IsUUID, Length, Max, Min } from 'class-validator';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Database } from '../platform/database/database';
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
  @HttpCode(202)
  begin(
    @ByCaller() { workspaceId }: Caller,
    @Param('id') id: string,
    @Body() wish: ComparisonDto,
  ): Promise<ComparisonShape> {
    return this.comparisons.begin(workspaceId, id, wish);
  }

  @Get('comparisons/:comparison')
  one(
    @ByCaller() { workspaceId }: Caller,
    @Param('id') id: string,
    @Param('comparison') comparison: string,
  ): Promise<ComparisonShape> {
    return this.database.inWorkspace(workspaceId, (tx) => this.comparisons.one(tx, id, comparison));
  }

  @Post('comparisons/:comparison/cancel')
  @HttpCode(200)
  cancel(
    @ByCaller() { workspaceId }: Caller,
    @Param('id') id: string,
    @Param('comparison') comparison: string,
  ): Promise<ComparisonShape> {
    return this.database.inWorkspace(workspaceId, (tx) => this.comparisons.cancel(tx, id, comparison));
  }

  @Get('cases')
  all(@ByCaller() { workspaceId }: Caller, @Param('id') id: string): Promise<RouteCaseShape[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.cases.all(tx, id));
  }

  @Post('cases')
  @HttpCode(201)
  add(
    @ByCaller() { workspaceId, by }: Caller,
    @Param('id') id: string,
    @Body() { name, ...sample }: NewCaseDto,
  ): Promise<RouteCaseShape> {
    return this.database.inWorkspace(workspaceId, (tx) => this.cases.add(tx, id, name, sample, by));
  }

  /** What a definition, or else the draft, does with every saved case. */
  @Post('cases/check')
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
  @HttpCode(200)
  agree(@ByCaller() { workspaceId }: Caller, @Param('id') id: string, @Param('case') one: string): Promise<CaseResult> {
    return this.database.inWorkspace(workspaceId, (tx) => this.cases.agree(tx, id, one));
  }

  @Delete('cases/:case')
  @HttpCode(204)
  remove(@ByCaller() { workspaceId }: Caller, @Param('id') id: string, @Param('case') one: string): Promise<void> {
    return this.database.inWorkspace(workspaceId, (tx) => this.cases.remove(tx, id, one));
  }
}
