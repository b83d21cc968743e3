import { Controller, Get, Inject, Query, Res } from '@nestjs/common';
import { ApiProduces, ApiProperty, ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import type { Balance, BalanceLine } from '@haycart/api';
import { Type } from 'class-transformer';
import { IsIn, IsInt, IsOptional, Max, Min } from 'class-validator';
import type { FastifyReply } from 'fastify';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Reads } from '../platform/commands/command';
import { Database } from '../platform/database/database';
import { EXPORT_TYPES, exportTable, onePortion, sendExport, type ExportColumn } from '../platform/export-file';
import { BalanceService } from './balance.service';

const DAY = 86_400_000;
const USUAL_DAYS = 14;
const MOST_DAYS = 366;
const FORMATS = ['csv', 'xlsx'] as const;

class BalanceQuery {
  @ApiPropertyOptional({
    minimum: 1,
    maximum: MOST_DAYS,
    description: 'The last so many days (UTC), today among them; 14 when not said',
  })
  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(1)
  @Max(MOST_DAYS)
  days?: number;
}

class BalanceExportQuery extends BalanceQuery {
  @ApiProperty({ enum: FORMATS }) @IsIn(FORMATS) format: (typeof FORMATS)[number];
}

const COLUMNS: ExportColumn<BalanceLine>[] = [
  { heading: 'Day', cell: ({ day }) => day },
  { heading: 'Intake', cell: ({ name }) => name },
  { heading: 'Acknowledged', cell: ({ acknowledged }) => acknowledged },
  { heading: 'Kept', cell: ({ kept }) => kept },
  { heading: 'Written', cell: ({ written }) => written },
  { heading: 'Held', cell: ({ held }) => held },
  { heading: 'Skipped', cell: ({ skipped }) => skipped },
  { heading: 'Failed', cell: ({ failed }) => failed },
  { heading: 'Taken back', cell: ({ takenBack }) => takenBack },
  { heading: 'No route', cell: ({ unrouted }) => unrouted },
  { heading: 'Waiting', cell: ({ waiting }) => waiting },
  { heading: 'Set aside', cell: ({ setAside }) => setAside },
  { heading: 'Cancelled', cell: ({ cancelled }) => cancelled },
  { heading: 'Off', cell: ({ off }) => off.join(' ') },
];

/** Whether all that was acknowledged is there. */
@ApiTags('reports')
@Controller('api/v1/reports/balance')
export class BalanceController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(BalanceService) private readonly balances: BalanceService,
  ) {}

  @Get()
  @Reads('submissions', 'Tells what became of all that was acknowledged, by intake and day')
  balance(@ByCaller() { workspaceId }: Caller, @Query() { days }: BalanceQuery): Promise<Balance> {
    return this.#of(workspaceId, days);
  }

  @Get('export')
  @ApiProduces(EXPORT_TYPES.csv, EXPORT_TYPES.xlsx)
  @Reads('submissions', 'Gives what became of all that was acknowledged as a file')
  async export(
    @ByCaller() { workspaceId }: Caller,
    @Query() { days, format }: BalanceExportQuery,
    @Res() reply: FastifyReply,
  ): Promise<void> {
    const { lines } = await this.#of(workspaceId, days);
    await sendExport(reply, 'balance', format, (take) =>
      take(exportTable(format, 'Balance', COLUMNS, onePortion(lines))),
    );
  }

  #of(workspaceId: string, days = USUAL_DAYS): Promise<Balance> {
    const day = (ago: number) => new Date(Date.now() - ago * DAY).toISOString().slice(0, 10);
    return this.database.inWorkspace(workspaceId, (tx) => this.balances.of(tx, day(days - 1), day(-1)));
  }
}
