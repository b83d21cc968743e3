import { Body, Controller, Get, HttpCode, Inject, Param, ParseUUIDPipe, Post, Put } from '@nestjs/common';
import { ApiProperty, ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import type { ChannelRulesShape, SourceChange, SourceMoves } from '@haycart/api';
import { CHANNEL_RULE_LIMITS, readChannelRules, USUAL_RULES, type ChannelRules } from '@haycart/core';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsInt,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
} from 'class-validator';
import { ChannelRulesService } from '../../channel-rules/channel-rules.service';
import { DestinationService } from '../../destination/destination.service';
import { ByCaller, type Caller } from '../../platform/auth/caller';
import { Asks, Command, InTransaction, Reads } from '../../platform/commands/command';
import { Database, type WorkspaceTx } from '../../platform/database/database';
import { ProblemError } from '../../platform/errors/problem-error';
import { alikeSources } from './alike-sources';
import { SourceChanges } from './source-changes.service';

const DAY = 86_400_000;
const YEAR = 365;
/** More than the core accepts, so that the core's own message is returned. */
const MOST = 2_000;

class ChannelRulesDto {
  @ApiProperty({
    type: [Object],
    description: 'In their order: `{when: {utm_medium: {test, value}}, channel, source?, medium?, note?}`',
  })
  @IsArray()
  @ArrayMaxSize(MOST)
  rules: unknown[];

  @ApiProperty({ type: [Object], description: 'Spellings that count under one name: `{name, spellings}`' })
  @IsArray()
  @ArrayMaxSize(MOST)
  names: unknown[];

  @ApiPropertyOptional({ type: [Object], description: 'Spellings that look like a name and are another source' })
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(MOST)
  apart?: unknown[];
}

class RehearsalDto extends ChannelRulesDto {
  @ApiPropertyOptional({ description: 'Of how many days; of a year when not said' })
  @IsOptional()
  @IsInt()
  @Min(1)
  @Max(3_700)
  days?: number;
}

class CorrectionDto {
  @ApiProperty({ type: [String], description: 'The ids of visits' })
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(500)
  @IsUUID(undefined, { each: true })
  visits: string[];
  @ApiProperty() @IsString() @Length(1, CHANNEL_RULE_LIMITS.name) @Matches(/\S/) channel: string;
  @ApiProperty() @IsString() @Length(1, CHANNEL_RULE_LIMITS.name) @Matches(/\S/) source: string;
  @ApiPropertyOptional({ type: String, nullable: true })
  @IsOptional()
  @IsString()
  @MaxLength(CHANNEL_RULE_LIMITS.name)
  medium?: string | null;
  @ApiPropertyOptional({ type: String, nullable: true })
  @IsOptional()
  @IsString()
  @MaxLength(CHANNEL_RULE_LIMITS.name)
  campaign?: string | null;
}

/** The channel rules, and applying them to past visits. */
@ApiTags('sources')
@Controller('api/v1')
export class ChannelRulesController {
  constructor(
    @Inject(ChannelRulesService) private readonly rules: ChannelRulesService,
    @Inject(Database) private readonly database: Database,
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(SourceChanges) private readonly changes: SourceChanges,
  ) {}

  @Get('channel-rules')
  @Reads('set-up', 'Tells how channels are told apart')
  read(@ByCaller() { workspaceId }: Caller): Promise<ChannelRulesShape> {
    return this.database.inWorkspace(workspaceId, (tx) => this.#shape(tx));
  }

  @Put('channel-rules')
  @Command('set-up.channel-rules', 'Changes how channels are told apart')
  async save(@InTransaction() tx: WorkspaceTx, @Body() given: ChannelRulesDto): Promise<ChannelRulesShape> {
    await this.rules.save(tx, await this.#checked(tx, given));
    return this.#shape(tx);
  }

  @Post('channel-rules/rehearsal')
  @Asks('set-up', 'Tells what channel rules would change about the past')
  @HttpCode(200)
  rehearse(@ByCaller() { workspaceId }: Caller, @Body() { days = YEAR, ...given }: RehearsalDto): Promise<SourceMoves> {
    return this.database.inWorkspace(workspaceId, async (tx) =>
      this.changes.rehearse(tx, await this.#checked(tx, given), new Date(Date.now() - days * DAY)),
    );
  }

  @Get('source-changes')
  @Reads('records', 'Lists the latest changes of where the past came from')
  latest(@ByCaller() { workspaceId }: Caller): Promise<SourceChange[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.changes.latest(tx));
  }

  /** `change` is null when no visit moves. */
  @Post('source-changes')
  @Command('set-up.apply-channel-rules', 'Has channel rules decide about the past', { tells: ['records'] })
  @HttpCode(200)
  async apply(@InTransaction() tx: WorkspaceTx, @ByCaller() { by }: Caller): Promise<{ change: SourceChange | null }> {
    return { change: await this.changes.applyRules(tx, by) };
  }

  @Post('source-changes/corrections')
  @Command('records.correct-source', 'Names where touches came from', { tells: ['records'] })
  @HttpCode(200)
  correct(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() { by }: Caller,
    @Body() { visits, ...source }: CorrectionDto,
  ): Promise<SourceChange> {
    return this.changes.correct(tx, by, visits, { medium: null, campaign: null, ...source });
  }

  @Post('source-changes/:id/take-back')
  @Command('set-up.take-back-source-change', 'Takes back a change of where the past came from', { tells: ['records'] })
  @HttpCode(200)
  takeBack(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() { by }: Caller,
    @Param('id', ParseUUIDPipe) id: string,
  ): Promise<SourceChange> {
    return this.changes.takeBack(tx, by, id);
  }

  async #shape(tx: WorkspaceTx): Promise<ChannelRulesShape> {
    const rules = await this.rules.rules(tx);
    return { ...rules, usual: rules === USUAL_RULES, alike: await alikeSources(tx, rules) };
  }

  async #checked(tx: WorkspaceTx, given: ChannelRulesDto): Promise<ChannelRules> {
    const read = readChannelRules(given, await this.destinations.load(tx));
    if (read.ok) return read.read;
    const errors = read.problems.map(({ at = '', code, text }) => ({ at, code, message: text }));
    throw new ProblemError('refused', errors[0]!.message, errors);
  }
}
