import { Body, Controller, Get, Inject, Patch, Put } from '@nestjs/common';
import { ApiProperty, ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import type { ExchangeRate } from '@haycart/core';
import type { WorkspaceShape } from '@haycart/api';
import { Type } from 'class-transformer';
import { ArrayMaxSize, IsArray, IsIn, IsOptional, IsString, Length, Matches, ValidateNested } from 'class-validator';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Command, InTransaction, Reads } from '../platform/commands/command';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { RatesService } from './rates.service';
import { WorkspacesService } from './workspaces.service';

class WorkspaceDto {
  @ApiPropertyOptional() @IsOptional() @IsString() @Length(2, 80) name?: string;
  @ApiPropertyOptional() @IsOptional() @Matches(/^[A-Z]{2}$/) defaultCountry?: string;
  @ApiPropertyOptional() @IsOptional() @Matches(/^[A-Z]{3}$/) defaultCurrency?: string;
  @ApiPropertyOptional() @IsOptional() @IsIn(['deals', 'leads']) leadHandling?: 'deals' | 'leads';
  @ApiPropertyOptional() @IsOptional() @IsIn(['deal', 'opportunity']) dealWord?: 'deal' | 'opportunity';
  @ApiPropertyOptional({ type: [String] })
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(500)
  @Length(1, 100, { each: true })
  blockedWords?: string[];
  @ApiPropertyOptional({ type: [String] })
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(500)
  @Length(1, 200, { each: true })
  blockedDomains?: string[];
}

class RateDto implements ExchangeRate {
  @ApiProperty() @IsString() currency: string;
  @ApiProperty() @IsString() from: string;
  @ApiProperty() @IsString() rate: string;
}

class RatesDto {
  @ApiProperty({ type: [RateDto] })
  @IsArray()
  @ArrayMaxSize(2_000)
  @ValidateNested({ each: true })
  @Type(() => RateDto)
  rates: RateDto[];
}

/** The workspace itself: its name, defaults and words, and its exchange rates. */
@ApiTags('workspace')
@Controller('api/v1')
export class WorkspaceController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(WorkspacesService) private readonly workspaces: WorkspacesService,
    @Inject(RatesService) private readonly rates: RatesService,
  ) {}

  @Get('workspace')
  @Reads('set-up', 'Shows the workspace')
  one(@ByCaller() { workspaceId }: Caller): Promise<WorkspaceShape> {
    return this.database.inWorkspace(workspaceId, (tx) => this.#shape(tx));
  }

  @Patch('workspace')
  @Command('set-up.change-workspace', 'Changes the workspace', { tells: ['people', 'pipelines', 'fields'] })
  async change(@InTransaction() tx: WorkspaceTx, @Body() change: WorkspaceDto): Promise<WorkspaceShape> {
    await this.workspaces.change(tx, change);
    return this.#shape(tx);
  }

  @Get('exchange-rates')
  @Reads('set-up', 'Lists exchange rates')
  allRates(@ByCaller() { workspaceId }: Caller): Promise<ExchangeRate[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.rates.all(tx));
  }

  @Put('exchange-rates')
  @Command('set-up.replace-rates', 'Replaces the exchange rates', { tells: ['people', 'pipelines', 'fields'] })
  async replaceRates(@InTransaction() tx: WorkspaceTx, @Body() { rates }: RatesDto): Promise<ExchangeRate[]> {
    return this.rates.replace(tx, rates, (await this.workspaces.one(tx)).defaultCurrency);
  }

  async #shape(tx: WorkspaceTx): Promise<WorkspaceShape> {
    const { createdAt: _, revision: __, ...shown } = await this.workspaces.one(tx);
    return shown;
  }
}
