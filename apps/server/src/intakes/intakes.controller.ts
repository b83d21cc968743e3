import { randomBytes } from 'node:crypto';
import { Body, Controller, Get, HttpCode, Inject, Param, Patch, Post } from '@nestjs/common';
import { ApiProperty, ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import { formShape, jsonPointer } from '@haycart/core';
import type { IntakeLine, IntakeShape } from '@haycart/api';
import {
  IsBoolean,
  IsIn,
  IsInt,
  IsObject,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  Min,
  ValidateIf,
} from 'class-validator';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Database } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { IntakesService } from './intakes.service';

class NewIntakeDto {
  @ApiProperty({ enum: ['endpoint', 'form'] }) @IsIn(['endpoint', 'form']) kind: 'endpoint' | 'form';
  @ApiProperty() @IsString() @Length(1, 120) name: string;
  @ApiPropertyOptional()
  @ValidateIf((dto: NewIntakeDto) => dto.kind === 'form')
  @Matches(/^[a-z0-9][a-z0-9-]{1,60}$/)
  slug?: string;
  @ApiPropertyOptional() @ValidateIf((dto: NewIntakeDto) => dto.kind === 'form') @IsObject() form?: object;
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
  @ApiPropertyOptional() @IsOptional() @IsObject() form?: object;
}

@ApiTags('intakes')
@Controller('api/v1')
export class IntakesController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(IntakesService) private readonly intakes: IntakesService,
  ) {}

  @Get('intakes')
  all(@ByCaller() { workspaceId }: Caller): Promise<IntakeShape[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.intakes.all(tx));
  }

  @Get('intake-lines')
  lines(@ByCaller() { workspaceId }: Caller): Promise<IntakeLine[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.intakes.lines(tx));
  }

  @Get('intakes/:id')
  one(@ByCaller() { workspaceId }: Caller, @Param('id') id: string): Promise<IntakeShape> {
    return this.database.inWorkspace(workspaceId, (tx) => this.intakes.one(tx, id));
  }

  @Post('intakes')
  @HttpCode(201)
  add(@ByCaller() { workspaceId }: Caller, @Body() { kind, name, slug, form }: NewIntakeDto): Promise<IntakeShape> {
    const made = kind === 'form' ? { kind, name, slug: slug!, form: readForm(form) } : { kind, name };
    return this.database.inWorkspace(workspaceId, (tx) => this.intakes.add(tx, made));
  }

  /** Turning signatures on answers the secret, once. */
  @Patch('intakes/:id')
  change(
    @ByCaller() { workspaceId }: Caller,
    @Param('id') id: string,
    @Body() { signed, form, ...change }: IntakeChangeDto,
  ): Promise<IntakeShape & { secret?: string }> {
    const secret = signed ? `whsec_${randomBytes(24).toString('base64')}` : null;
    const whole = { ...change, ...(signed === undefined ? {} : { secret }), ...(form ? { form: readForm(form) } : {}) };
    if (!Object.keys(whole).length) throw new ProblemError('refused', 'Nothing to change was given.');
    return this.database.inWorkspace(workspaceId, async (tx) => ({
      ...(await this.intakes.change(tx, id, whole)),
      ...(secret ? { secret } : {}),
    }));
  }
}

function readForm(form: unknown) {
  const read = formShape.safeParse(form);
  if (read.success) return read.data;
  const errors = read.error.issues.map(({ path, code, message }) => ({
    at: `/form${jsonPointer(path as (string | number)[])}`,
    code,
    message,
  }));
  throw new ProblemError('refused', 'The form does not fit the format haycart.form/1.', errors);
}
