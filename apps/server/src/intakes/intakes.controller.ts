import { Body, Controller, Get, HttpCode, Inject, Param, Patch, Post } from '@nestjs/common';
import { ApiProperty, ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import { INTAKE_KINDS, readIntakeSource, type IntakeSource } from '@haycart/core';
import type { IntakeShape } from '@haycart/api';
import { IsBoolean, IsIn, IsInt, IsObject, IsOptional, IsString, Length, Max, Min, ValidateIf } from 'class-validator';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Command, InTransaction, Reads } from '../platform/commands/command';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { ProblemError, problemsAt } from '../platform/errors/problem-error';
import { IntakesService } from './intakes.service';

/** Kinds that are made here; pages of their own make the others. */
const MADE_BY_NAME = INTAKE_KINDS.filter(({ isMadeByName }) => isMadeByName).map(({ kind }) => kind);

class NewIntakeDto {
  @ApiProperty({ enum: MADE_BY_NAME }) @IsIn(MADE_BY_NAME) kind: string;
  @ApiProperty() @IsString() @Length(1, 120) name: string;
  @ApiPropertyOptional({ type: Object, description: 'What the kind asks beside the name' })
  @IsOptional()
  @IsObject()
  settings?: Record<string, unknown>;
}

class IntakeChangeDto {
  @ApiPropertyOptional() @IsOptional() @IsString() @Length(1, 120) name?: string;
  @ApiPropertyOptional({ enum: ['live', 'closed'] }) @IsOptional() @IsIn(['live', 'closed']) state?: 'live' | 'closed';
  @ApiPropertyOptional({ nullable: true, type: Number })
  @ValidateIf((dto: IntakeChangeDto) => dto.perMinute !== null && dto.perMinute !== undefined)
  @IsInt()
  @Min(1)
  @Max(1_000_000)
  perMinute?: number | null;
  @ApiPropertyOptional() @IsOptional() @IsBoolean() signed?: boolean;
  @ApiPropertyOptional({ nullable: true, type: String })
  @ValidateIf((dto: IntakeChangeDto) => dto.closedMessage !== null && dto.closedMessage !== undefined)
  @IsString()
  @Length(1, 500)
  closedMessage?: string | null;
  @ApiPropertyOptional() @IsOptional() @IsBoolean() archived?: boolean;
  @ApiPropertyOptional({ description: 'Filled in by colleagues alone' })
  @IsOptional()
  @IsBoolean()
  forColleagues?: boolean;
  @ApiPropertyOptional({
    type: Object,
    description:
      'Where its submissions come from: `{constant: {channel, source, medium, campaign}, always, answers: {said, utm_source, utm_medium, utm_campaign}}`',
  })
  @IsOptional()
  @IsObject()
  source?: Record<string, unknown>;
}

@ApiTags('intakes')
@Controller('api/v1')
export class IntakesController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(IntakesService) private readonly intakes: IntakesService,
  ) {}

  @Get('intakes')
  @Reads('intakes', 'Lists intakes')
  all(@ByCaller() { workspaceId }: Caller): Promise<IntakeShape[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.intakes.all(tx));
  }

  @Get('intakes/:id')
  @Reads('intakes', 'Shows an intake')
  one(@ByCaller() { workspaceId }: Caller, @Param('id') id: string): Promise<IntakeShape> {
    return this.database.inWorkspace(workspaceId, (tx) => this.intakes.one(tx, id));
  }

  @Post('intakes')
  @Command('intakes.add', 'Makes an intake')
  @HttpCode(201)
  add(@InTransaction() tx: WorkspaceTx, @Body() made: NewIntakeDto): Promise<IntakeShape> {
    return this.intakes.add(tx, made);
  }

  /** Turning signatures on answers the secret, once. */
  @Patch('intakes/:id')
  @Command('intakes.change', 'Changes an intake')
  async change(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() { by }: Caller,
    @Param('id') id: string,
    @Body() { signed, source, ...plain }: IntakeChangeDto,
  ): Promise<IntakeShape & { secret?: string }> {
    const change = { ...plain, ...(source ? { source: checkedSource(source) } : {}) };
    if (signed !== undefined && by.kind !== 'person')
      throw new ProblemError('not-allowed', 'Only a person who is signed in may change how posts are signed.');
    if (signed === undefined && !Object.keys(change).length)
      throw new ProblemError('refused', 'Nothing to change was given.');
    const secret = signed === undefined ? null : await this.intakes.sign(tx, id, signed);
    const intake = Object.keys(change).length
      ? await this.intakes.change(tx, id, change)
      : await this.intakes.one(tx, id);
    return { ...intake, ...(secret ? { secret } : {}) };
  }
}

function checkedSource(given: Record<string, unknown>): IntakeSource {
  const read = readIntakeSource(given);
  if (read.ok) return read.read;
  throw new ProblemError('refused', read.problems[0]!.text, problemsAt(read.problems, '/source'));
}
