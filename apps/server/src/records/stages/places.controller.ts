import { Body, Controller, HttpCode, Inject, Param, Post } from '@nestjs/common';
import { ApiProperty, ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import type { RecordShape } from '@haycart/api';
import { IsOptional, IsString, Length } from 'class-validator';
import { ByCaller, type Caller } from '../../platform/auth/caller';
import { Command, InTransaction } from '../../platform/commands/command';
import type { WorkspaceTx } from '../../platform/database/database';
import { DealMovesService } from './deal-moves.service';
import { RecordsService } from '../records.service';

class MoveDto {
  @ApiProperty() @IsString() @Length(1, 100) stage: string;
  /** Why it was won or lost. */
  @ApiPropertyOptional() @IsOptional() @IsString() @Length(1, 500) reason?: string;
}

type Moved = RecordShape & { edit: string | null };

/** Deals and leads on their way through the pipelines. */
@ApiTags('records')
@Controller('api/v1')
export class PlacesController {
  constructor(
    @Inject(RecordsService) private readonly records: RecordsService,
    @Inject(DealMovesService) private readonly moves: DealMovesService,
  ) {}

  @Post('deals/:id/move')
  @Command('records.move-deal', 'Moves a deal to a stage')
  @HttpCode(200)
  moveDeal(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Param('id') id: string,
    @Body() move: MoveDto,
  ): Promise<Moved> {
    return this.#move(tx, caller, 'deal', id, move);
  }

  @Post('leads/:id/move')
  @Command('records.move-lead', 'Moves a lead to a stage')
  @HttpCode(200)
  moveLead(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Param('id') id: string,
    @Body() move: MoveDto,
  ): Promise<Moved> {
    return this.#move(tx, caller, 'lead', id, move);
  }

  async #move(tx: WorkspaceTx, { by }: Caller, kind: 'deal' | 'lead', id: string, move: MoveDto): Promise<Moved> {
    const { edit } = await this.moves.move(tx, kind, id, move, by);
    return { ...(await this.records.one(tx, kind, id)), edit };
  }
}
