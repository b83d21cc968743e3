import { Body, Controller, Delete, Get, HttpCode, Inject, Param, Patch, Post } from '@nestjs/common';
import { ApiBody, ApiProperty, ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import {
  COLOUR_MARKS,
  FIELD_TYPES,
  RECORD_KINDS,
  type ColourMark,
  type FieldType,
  type RecordKind,
  FIELD_LIMITS,
} from '@haycart/core';
import type { DoneEdit, FieldMoveRehearsal, FieldShape, FieldUse, TypeChangeRehearsal } from '@haycart/api';
import { plainToInstance, Type } from 'class-transformer';
import { ArrayMaxSize, IsArray, IsBoolean, IsIn, IsOptional, IsString, Length, ValidateNested } from 'class-validator';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Asks, Command, InTransaction, Reads } from '../platform/commands/command';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { validation } from '../platform/errors/validate';
import { FieldsService } from '../fields/fields.service';
import { FieldChangesService } from './field-changes.service';
import { FieldUsesService } from './field-uses.service';

const MOST_AT_ONCE = 500;

class OptionDto {
  /** Of an option that is there already; a new one gets its key. */
  @ApiPropertyOptional() @IsOptional() @IsString() key?: string;
  @ApiProperty() @IsString() @Length(1, 100) label: string;
  @ApiPropertyOptional({ type: [String] })
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(100)
  @IsString({ each: true })
  aliases?: string[];
  @ApiPropertyOptional({ enum: COLOUR_MARKS }) @IsOptional() @IsIn(COLOUR_MARKS) colour?: ColourMark;
  @ApiPropertyOptional() @IsOptional() @IsBoolean() retired?: boolean;
}

class FieldDto {
  @ApiPropertyOptional() @IsOptional() @IsBoolean() required?: boolean;
  @ApiPropertyOptional() @IsOptional() @IsString() @Length(0, 500) help?: string;
  @ApiPropertyOptional() @IsOptional() @IsString() @Length(0, 100) group?: string;
  @ApiPropertyOptional() @IsOptional() @IsBoolean() unique?: boolean;
  @ApiPropertyOptional({ type: [OptionDto] })
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(FIELD_LIMITS.options)
  @ValidateNested({ each: true })
  @Type(() => OptionDto)
  options?: OptionDto[];
}

class FieldChangeDto extends FieldDto {
  @ApiPropertyOptional() @IsOptional() @IsString() @Length(1, 100) label?: string;
  @ApiPropertyOptional() @IsOptional() @IsBoolean() retired?: boolean;
}

class NewFieldDto extends FieldDto {
  @ApiProperty({ enum: RECORD_KINDS }) @IsIn(RECORD_KINDS) record: RecordKind;
  @ApiProperty() @IsString() @Length(1, 100) label: string;
  @ApiProperty({ enum: FIELD_TYPES }) @IsIn(FIELD_TYPES) type: FieldType;
}

class TypeDto {
  @ApiProperty({ enum: FIELD_TYPES }) @IsIn(FIELD_TYPES) type: FieldType;
  /** Clears values that do not fit; otherwise they stand in the way. */
  @ApiPropertyOptional() @IsOptional() @IsBoolean() clearMisfits?: boolean;
}

class FieldMoveDto {
  @ApiProperty({ enum: RECORD_KINDS }) @IsIn(RECORD_KINDS) to: RecordKind;
}

/** Preparing the fields of records. */
@ApiTags('fields')
@Controller('api/v1')
export class FieldSetUpController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(FieldsService) private readonly fields: FieldsService,
    @Inject(FieldChangesService) private readonly changes: FieldChangesService,
    @Inject(FieldUsesService) private readonly fieldUses: FieldUsesService,
  ) {}

  /** One field, or a list of up to 500: all of them or none. */
  @Post('fields')
  @Command('set-up.add-field', 'Makes fields', { tells: ['fields'] })
  @HttpCode(201)
  @ApiBody({ type: NewFieldDto })
  async make(@InTransaction() tx: WorkspaceTx, @Body() body: object): Promise<FieldShape | FieldShape[]> {
    const list = Array.isArray(body);
    const wanted = await Promise.all((list ? body : [body]).map((one, index) => checked(one, list ? `/${index}` : '')));
    if (!wanted.length || wanted.length > MOST_AT_ONCE)
      throw new ProblemError('refused', `A list brings 1 to ${MOST_AT_ONCE} fields; this one has ${wanted.length}.`);
    const made = await this.fields.make(tx, wanted, (index) => (list ? `/${index}` : ''));
    return list ? made : made[0]!;
  }

  @Patch('fields/:record/:key')
  @Command('set-up.change-field', 'Changes a field', { tells: ['fields'] })
  async change(
    @InTransaction() tx: WorkspaceTx,
    @Param('record') record: string,
    @Param('key') key: string,
    @Body() change: FieldChangeDto,
  ): Promise<FieldShape> {
    if (change.unique !== undefined) await this.changes.keepApart(tx, recordFrom(record), key, change.unique);
    return this.fields.change(tx, recordFrom(record), key, change);
  }

  /** What another type would do to the values held; writes nothing. */
  @Post('fields/:record/:key/type/rehearse')
  @Asks('set-up', 'Rehearses another type for a field')
  @HttpCode(200)
  rehearseType(
    @ByCaller() { workspaceId }: Caller,
    @Param('record') record: string,
    @Param('key') key: string,
    @Body() { type }: TypeDto,
  ): Promise<TypeChangeRehearsal> {
    return this.database.inWorkspace(workspaceId, (tx) => this.changes.rehearseType(tx, recordFrom(record), key, type));
  }

  @Post('fields/:record/:key/type')
  @Command('set-up.change-field-type', 'Gives a field another type', { tells: ['fields'] })
  @HttpCode(200)
  changeType(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() { by }: Caller,
    @Param('record') record: string,
    @Param('key') key: string,
    @Body() { type, clearMisfits = false }: TypeDto,
  ): Promise<DoneEdit> {
    return this.changes.changeType(tx, recordFrom(record), key, { type, clearMisfits }, by);
  }

  /** What moving a field to another kind of record would do; writes nothing. */
  @Post('fields/:record/:key/move/rehearse')
  @Asks('set-up', 'Rehearses moving a field to another kind of record')
  @HttpCode(200)
  rehearseMove(
    @ByCaller() { workspaceId }: Caller,
    @Param('record') record: string,
    @Param('key') key: string,
    @Body() { to }: FieldMoveDto,
  ): Promise<FieldMoveRehearsal> {
    return this.database.inWorkspace(workspaceId, (tx) =>
      this.changes.rehearseMove(tx, { record: recordFrom(record), key }, to),
    );
  }

  /** Moves a field to another kind of record, values along; routes follow. */
  @Post('fields/:record/:key/move')
  @Command('set-up.move-field', 'Moves a field to another kind of record', { tells: ['fields'] })
  @HttpCode(200)
  move(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() { by }: Caller,
    @Param('record') record: string,
    @Param('key') key: string,
    @Body() { to }: FieldMoveDto,
  ): Promise<DoneEdit & { field: FieldShape }> {
    return this.changes.move(tx, { record: recordFrom(record), key }, to, by);
  }

  /** Takes a field out of use. Its values stay on the records, and `retired: false` brings it back. */
  @Delete('fields/:record/:key')
  @Command('set-up.remove-field', 'Takes a field out of use', { tells: ['fields'] })
  remove(
    @InTransaction() tx: WorkspaceTx,
    @Param('record') record: string,
    @Param('key') key: string,
  ): Promise<FieldShape> {
    return this.fields.change(tx, recordFrom(record), key, { retired: true });
  }

  /** Every field, retired ones too, with what feeds it and how full it is. */
  @Get('set-up/field-uses')
  @Reads('set-up', 'Lists every field with what feeds it and how full it is')
  uses(@ByCaller() { workspaceId }: Caller): Promise<FieldUse[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.fieldUses.all(tx));
  }
}

/** Checks one of a list as the framework checks a body, with the places in the list. */
async function checked(one: unknown, at: string): Promise<NewFieldDto> {
  try {
    return (await validation.transform(plainToInstance(Object, one), {
      type: 'body',
      metatype: NewFieldDto,
    })) as NewFieldDto;
  } catch (thrown) {
    if (!(thrown instanceof ProblemError)) throw thrown;
    const errors = thrown.errors?.map((error) => ({ ...error, at: `${at}${error.at}` }));
    throw new ProblemError(thrown.code, thrown.detail, errors);
  }
}

function recordFrom(text: string): RecordKind {
  const record = RECORD_KINDS.find((kind) => kind === text);
  if (!record) throw new ProblemError('not-found', `There is no kind of record ${text}.`);
  return record;
}
