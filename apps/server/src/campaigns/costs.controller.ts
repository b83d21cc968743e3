import { Body, Controller, Delete, Get, HttpCode, Inject, Param, Post, Query } from '@nestjs/common';
import { ApiProperty, ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import type { CampaignCost, CostsKept } from '@haycart/api';
import { MOST_COST_ROWS } from '@haycart/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsISO8601,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Command, InTransaction, Reads } from '../platform/commands/command';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { CampaignCosts, type CostWish, type WhereThereIsOne } from './campaign-costs.service';

const ISO_DAY = /^\d{4}-\d{2}-\d{2}$/;
const OVER = ['refuse', 'replace', 'add'] as const satisfies WhereThereIsOne[];

class CostDto implements CostWish {
  @ApiProperty({ description: 'The name or the code of a campaign' }) @IsString() @Length(1, 200) campaign: string;
  @ApiProperty() @Matches(ISO_DAY) @IsISO8601({ strict: true }) from: string;
  @ApiProperty({ description: 'The last day; a cost of several days is spread over them' })
  @Matches(ISO_DAY)
  @IsISO8601({ strict: true })
  to: string;
  @ApiProperty({ description: 'In minor units' }) @IsInt() @Min(0) @Max(Number.MAX_SAFE_INTEGER) amount: number;
  @ApiProperty({ description: 'ISO 4217' }) @Matches(/^[A-Z]{3}$/) currency: string;
  @ApiPropertyOptional() @IsOptional() @IsString() @MaxLength(200) source?: string;
  @ApiPropertyOptional() @IsOptional() @IsString() @MaxLength(200) medium?: string;
}

class CostsDto {
  @ApiProperty({ type: [CostDto] })
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(MOST_COST_ROWS)
  @ValidateNested({ each: true })
  @Type(() => CostDto)
  costs: CostDto[];
  @ApiPropertyOptional({
    enum: OVER,
    description: 'What happens where a day has a cost already; `refuse` when not said',
  })
  @IsOptional()
  @IsIn(OVER)
  over?: WhereThereIsOne;
  @ApiPropertyOptional({ description: 'Whether campaigns that the register does not have are added to it' })
  @IsOptional()
  @IsBoolean()
  addCampaigns?: boolean;
}

class PeriodQuery {
  @ApiProperty() @Matches(ISO_DAY) @IsISO8601({ strict: true }) from: string;
  @ApiProperty() @Matches(ISO_DAY) @IsISO8601({ strict: true }) to: string;
}

/** What campaigns cost. */
@ApiTags('sources')
@Controller('api/v1')
export class CostsController {
  constructor(
    @Inject(CampaignCosts) private readonly costs: CampaignCosts,
    @Inject(Database) private readonly database: Database,
  ) {}

  @Get('campaigns/:key/costs')
  @Reads('records', 'Lists what a campaign cost by day')
  of(@ByCaller() { workspaceId }: Caller, @Param('key') key: string): Promise<CampaignCost[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.costs.of(tx, key));
  }

  @Post('campaign-costs')
  @Command('set-up.keep-costs', 'Keeps what campaigns cost', { tells: ['sources'] })
  @HttpCode(200)
  keep(
    @InTransaction() tx: WorkspaceTx,
    @Body() { costs, over = 'refuse', addCampaigns = false }: CostsDto,
  ): Promise<CostsKept> {
    return this.costs.keep(tx, costs, { over, addCampaigns });
  }

  @Delete('campaigns/:key/costs')
  @Command('set-up.remove-costs', 'Removes what a campaign cost in a period', { tells: ['sources'] })
  @HttpCode(200)
  async remove(
    @InTransaction() tx: WorkspaceTx,
    @Param('key') key: string,
    @Query() { from, to }: PeriodQuery,
  ): Promise<{ days: number }> {
    return { days: await this.costs.remove(tx, key, from, to) };
  }
}
