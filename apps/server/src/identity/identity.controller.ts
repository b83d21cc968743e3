import { Body, Controller, Get, HttpCode, Inject, Param, Post, Put, Query } from '@nestjs/common';
import { ApiProperty, ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import {
  checkThresholds,
  SURVIVORSHIP_RULES,
  type FieldValue,
  type JsonValue,
  type RecordKind,
  type SurvivorshipRule,
} from '@haycart/core';
import type {
  IdentityReport,
  LookAlikeLine,
  MergeRehearsal,
  MergeShape,
  ScanShape,
  ThresholdExamples,
  UnmergeRehearsal,
} from '@haycart/api';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  Max,
  Min,
  ValidateNested,
} from 'class-validator';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Asks, Command, InTransaction, Reads } from '../platform/commands/command';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { ProblemError, problemsAt } from '../platform/errors/problem-error';
import { Events } from '../platform/events/events';
import { readLimit } from '../platform/paging';
import { PeopleService } from '../workspaces/people.service';
import { IdentityReportService } from './identity-report.service';
import { LookAlikesService } from './look-alikes.service';
import { ThresholdsService } from './thresholds.service';
import { MergesService } from './merges.service';
import { RecognitionService } from '../recognition/recognition.service';
import { SCANNED, ScanService } from './scan.service';
import { UnmergeService } from './unmerge.service';

const MERGED = ['contact', 'company', 'lead', 'deal'] as const;

class MergeRecordsDto {
  @ApiProperty({ enum: MERGED }) @IsIn(MERGED) kind: RecordKind;
  @ApiProperty({ type: [String] })
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(50)
  @IsUUID('all', { each: true })
  ids: string[];
  @ApiPropertyOptional({ description: 'The record that stays; the oldest when not said.' })
  @IsOptional()
  @IsUUID()
  survivor?: string;
  @ApiPropertyOptional({ type: Object, description: 'Values chosen otherwise than by the rules; null is blank.' })
  @IsOptional()
  @IsObject()
  values?: Record<string, JsonValue>;
}

class UnmergeDto {
  @ApiPropertyOptional({
    type: Object,
    description: 'For what came since: the id of the record it goes to, by its id.',
  })
  @IsOptional()
  @IsObject()
  goes?: Record<string, string>;
}

class MergesDto {
  @IsOptional() @IsString() record?: string;
  @IsOptional() @IsIn(MERGED) kind?: RecordKind;
  @IsOptional() @IsString() limit?: string;
}

class KindDto {
  @IsOptional() @IsIn(SCANNED) kind?: RecordKind;
}

class ScanDto {
  @ApiProperty({ enum: SCANNED }) @IsIn(SCANNED) kind: RecordKind;
}

class AcceptDto {
  @ApiProperty({ enum: SCANNED }) @IsIn(SCANNED) kind: RecordKind;
  @ApiProperty({ description: 'From what probability on; 0 to 1.' }) @IsNumber() @Min(0.5) @Max(1) least: number;
}

class ThresholdsDto {
  @ApiProperty() @IsNumber() @Min(0) @Max(1) accept: number;
  @ApiProperty() @IsNumber() @Min(0) @Max(1) ask: number;
}

class ExamplesDto {
  @IsOptional() @IsIn(SCANNED) kind?: RecordKind;
  @IsString() @Length(1, 20) accept: string;
  @IsString() @Length(1, 20) ask: string;
}

class MailboxesDto {
  @ApiProperty() @IsBoolean() tags: boolean;
  @ApiProperty() @IsBoolean() points: boolean;
}

class MergingDto {
  @ApiProperty({ type: Object, description: `By field: ${SURVIVORSHIP_RULES.join(', ')}.` })
  @IsObject()
  fields: Record<string, SurvivorshipRule>;
  @ApiProperty({ type: [String] })
  @IsArray()
  @ArrayMaxSize(100)
  @IsString({ each: true })
  trusted: string[];
}

class SettingsDto {
  @ApiPropertyOptional() @IsOptional() @ValidateNested() @Type(() => ThresholdsDto) thresholds?: ThresholdsDto;
  @ApiPropertyOptional() @IsOptional() @ValidateNested() @Type(() => MailboxesDto) mailboxes?: MailboxesDto;
  @ApiPropertyOptional() @IsOptional() @ValidateNested() @Type(() => MergingDto) merging?: MergingDto;
}

/** Recognition: what may be the same, what became one, and how well that goes. */
@ApiTags('identity')
@Controller('api/v1')
export class IdentityController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MergesService) private readonly merges: MergesService,
    @Inject(UnmergeService) private readonly unmerges: UnmergeService,
    @Inject(LookAlikesService) private readonly lookAlikes: LookAlikesService,
    @Inject(ThresholdsService) private readonly thresholds: ThresholdsService,
    @Inject(ScanService) private readonly scans: ScanService,
    @Inject(RecognitionService) private readonly recognition: RecognitionService,
    @Inject(IdentityReportService) private readonly reports: IdentityReportService,
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(Events) private readonly events: Events,
  ) {}

  @Get('identity')
  @Reads('identity', 'Tells how recognition does')
  report(@ByCaller() { workspaceId }: Caller, @Query() { kind = 'contact' }: KindDto): Promise<IdentityReport> {
    return this.database.inWorkspace(workspaceId, (tx) => this.reports.report(tx, kind));
  }

  /** What moving the thresholds would do: how many more are asked and accepted, with examples on either side. */
  @Get('identity/examples')
  @Reads('identity', 'Shows pairs around some thresholds')
  examples(
    @ByCaller() { workspaceId }: Caller,
    @Query() { kind = 'contact', accept, ask }: ExamplesDto,
  ): Promise<ThresholdExamples> {
    const thresholds = { accept: Number(accept), ask: Number(ask) };
    refuseThresholds(thresholds);
    return this.database.inWorkspace(workspaceId, (tx) => this.thresholds.examples(tx, kind, thresholds));
  }

  @Put('identity/settings')
  @Command('identity.change-settings', 'Changes how records are recognised')
  async settings(@InTransaction() tx: WorkspaceTx, @Body() change: SettingsDto): Promise<IdentityReport['settings']> {
    if (change.thresholds) refuseThresholds(change.thresholds);
    const unknown = Object.entries(change.merging?.fields ?? {}).find(([, rule]) => !SURVIVORSHIP_RULES.includes(rule));
    if (unknown)
      throw new ProblemError('refused', `There is no rule “${String(unknown[1])}” for which value survives.`, [
        {
          at: `/merging/fields/${unknown[0]}`,
          code: 'unknown-rule',
          message: `Choose ${SURVIVORSHIP_RULES.join(', ')}.`,
        },
      ]);
    await this.recognition.change(tx, change);
    await this.events.tell(tx, 'identity');
    return this.recognition.settings(tx);
  }

  @Post('scans')
  @Command('identity.scan', 'Looks through all records for those that are alike')
  @HttpCode(202)
  async scan(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() { by }: Caller,
    @Body() { kind }: ScanDto,
  ): Promise<ScanShape> {
    return this.scans.start(tx, kind, await this.people.nameOf(tx, by));
  }

  @Get('scans')
  @Reads('identity', 'Tells how far the latest scan is')
  async latestScan(@ByCaller() { workspaceId }: Caller, @Query() { kind = 'contact' }: KindDto): Promise<ScanShape[]> {
    const scan = await this.database.inWorkspace(workspaceId, (tx) => this.scans.latest(tx, kind));
    return scan ? [scan] : [];
  }

  @Post('scans/:id/cancel')
  @Command('identity.cancel-scan', 'Cancels a scan')
  @HttpCode(200)
  cancelScan(@InTransaction() tx: WorkspaceTx, @Param('id') id: string): Promise<ScanShape> {
    return this.scans.cancel(tx, id);
  }

  /** What accepting all pairs from a probability on would merge; nothing is done. */
  @Post('look-alikes/rehearse-accepting')
  @Asks('identity', 'Rehearses making one of all pairs from a likeness on')
  @HttpCode(200)
  rehearseAccepting(
    @ByCaller() { workspaceId }: Caller,
    @Body() { kind, least }: AcceptDto,
  ): Promise<{ merged: LookAlikeLine[]; left: LookAlikeLine[] }> {
    return this.database.inWorkspace(workspaceId, (tx) => this.lookAlikes.acceptable(tx, kind, least));
  }

  @Post('look-alikes/accept')
  @Command('identity.accept', 'Makes one of all pairs from a likeness on')
  @HttpCode(200)
  async accept(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() { by }: Caller,
    @Body() { kind, least }: AcceptDto,
  ): Promise<{ merged: number }> {
    return {
      merged: await this.lookAlikes.accept(tx, kind, least, by),
    };
  }

  @Get('merges')
  @Reads('identity', 'Lists merges')
  list(@ByCaller() { workspaceId }: Caller, @Query() { record, kind, limit }: MergesDto): Promise<MergeShape[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.merges.list(tx, { record, kind }, readLimit(limit)));
  }

  @Post('merges/rehearse')
  @Asks('identity', 'Rehearses a merge')
  @HttpCode(200)
  rehearse(@ByCaller() { workspaceId }: Caller, @Body() choice: MergeRecordsDto): Promise<MergeRehearsal> {
    return this.database.inWorkspace(workspaceId, (tx) => this.merges.rehearse(tx, wish(choice)));
  }

  @Post('merges')
  @Command('identity.merge', 'Makes one record of several')
  merge(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() { by }: Caller,
    @Body() choice: MergeRecordsDto,
  ): Promise<{ survivor: string; merges: string[] }> {
    return this.merges.merge(tx, wish(choice), by);
  }

  @Post('merges/:id/rehearse-undoing')
  @Asks('identity', 'Rehearses undoing a merge')
  @HttpCode(200)
  rehearseUndoing(
    @ByCaller() { workspaceId }: Caller,
    @Param('id') id: string,
    @Body() { goes = {} }: UnmergeDto,
  ): Promise<UnmergeRehearsal> {
    return this.database.inWorkspace(workspaceId, (tx) => this.unmerges.rehearse(tx, id, goes));
  }

  @Post('merges/:id/undo')
  @Command('identity.undo-merge', 'Takes a merge apart')
  @HttpCode(200)
  undo(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() { by }: Caller,
    @Param('id') id: string,
    @Body() { goes = {} }: UnmergeDto,
  ): Promise<{ survivor: string; absorbed: string }> {
    return this.unmerges.undo(tx, id, goes, by);
  }
}

function wish({ values, ...choice }: MergeRecordsDto) {
  return { ...choice, values: values as Record<string, FieldValue | null> | undefined };
}

function refuseThresholds(thresholds: { accept: number; ask: number }): void {
  const problems = checkThresholds(thresholds, '/thresholds');
  if (problems.length) throw new ProblemError('refused', problems[0]!.text, problemsAt(problems));
}
