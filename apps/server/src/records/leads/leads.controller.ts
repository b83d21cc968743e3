import { Body, Controller, HttpCode, Inject, Param, Post } from '@nestjs/common';
import { ApiProperty, ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import type { DoneEdit, QualifyRehearsal } from '@haycart/api';
import { IsOptional, IsString, Length } from 'class-validator';
import { ByCaller, type Caller } from '../../platform/auth/caller';
import { Asks, Command, InTransaction } from '../../platform/commands/command';
import { Database, type WorkspaceTx } from '../../platform/database/database';
import { DestinationService } from '../../destination/destination.service';
import { LeadsService } from './leads.service';

class QualifyDto {
  @ApiProperty() @IsString() @Length(1, 100) pipeline: string;
  @ApiProperty() @IsString() @Length(1, 100) stage: string;
  @ApiPropertyOptional() @IsOptional() @IsString() @Length(1, 500) dealName?: string;
}

class ReasonDto {
  @ApiProperty() @IsString() @Length(1, 500) reason: string;
}

/** What becomes of leads. */
@ApiTags('records')
@Controller('api/v1/leads')
export class LeadsController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(LeadsService) private readonly leads: LeadsService,
    @Inject(DestinationService) private readonly destinations: DestinationService,
  ) {}

  /** What qualifying would do; writes nothing. */
  @Post(':id/qualify/rehearse')
  @Asks('records', 'Rehearses qualifying a lead')
  @HttpCode(200)
  rehearse(
    @ByCaller() { workspaceId }: Caller,
    @Param('id') id: string,
    @Body() wish: QualifyDto,
  ): Promise<QualifyRehearsal> {
    return this.database.inWorkspace(workspaceId, async (tx) =>
      this.leads.rehearse(tx, id, wish, await this.destinations.load(tx)),
    );
  }

  /** Finds or makes contact and company, makes the deal, and links them with the lead. */
  @Post(':id/qualify')
  @Command('records.qualify-lead', 'Makes a deal of a lead')
  @HttpCode(200)
  async qualify(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() { by }: Caller,
    @Param('id') id: string,
    @Body() wish: QualifyDto,
  ): Promise<DoneEdit & { deal: string }> {
    return this.leads.qualify(tx, id, wish, await this.destinations.load(tx), by);
  }

  @Post(':id/set-aside')
  @Command('records.set-lead-aside', 'Sets a lead aside')
  @HttpCode(200)
  async setAside(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() { by }: Caller,
    @Param('id') id: string,
    @Body() { reason }: ReasonDto,
  ): Promise<DoneEdit> {
    return this.leads.setAside(tx, id, reason, await this.destinations.load(tx), by);
  }

  @Post(':id/reopen')
  @Command('records.reopen-lead', 'Opens a lead again')
  @HttpCode(200)
  async reopen(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() { by }: Caller,
    @Param('id') id: string,
  ): Promise<DoneEdit> {
    return this.leads.setAside(tx, id, null, await this.destinations.load(tx), by);
  }
}
