import { Body, Controller, Delete, Get, HttpCode, Inject, Param, Patch, Post } from '@nestjs/common';
import { ApiProperty, ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import { checkView, listedFields, RECORD_KINDS, type ListView, type RecordKind } from '@haycart/core';
import type { SavedView } from '@haycart/api';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsObject,
  IsOptional,
  IsString,
  Length,
  Max,
  Min,
  ValidateNested,
} from 'class-validator';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Command, InTransaction, Reads } from '../platform/commands/command';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { ProblemError, problemsAt } from '../platform/errors/problem-error';
import { DestinationService } from '../destination/destination.service';
import { ViewsService } from './views.service';

class ColumnDto {
  @ApiProperty() @IsString() @Length(1, 100) field: string;
  @ApiPropertyOptional() @IsOptional() @IsInt() @Min(40) @Max(2_000) width?: number;
}

class SortDto {
  @ApiProperty() @IsString() @Length(1, 100) field: string;
  @ApiProperty() @IsBoolean() down: boolean;
}

class ViewDto {
  @ApiProperty({ type: [ColumnDto] })
  @IsArray()
  @ArrayMaxSize(200)
  @ValidateNested({ each: true })
  @Type(() => ColumnDto)
  columns: ColumnDto[];
  @ApiPropertyOptional() @IsOptional() @IsObject() filter?: NonNullable<ListView['filter']>;
  @ApiPropertyOptional() @IsOptional() @ValidateNested() @Type(() => SortDto) sort?: SortDto;
  @ApiPropertyOptional() @IsOptional() @IsString() @Length(1, 100) group?: string;
}

class ViewChangeDto {
  @ApiPropertyOptional() @IsOptional() @IsString() @Length(1, 100) name?: string;
  @ApiPropertyOptional() @IsOptional() @ValidateNested() @Type(() => ViewDto) view?: ViewDto;
  @ApiPropertyOptional() @IsOptional() @IsBoolean() shared?: boolean;
}

class NewViewDto {
  @ApiProperty({ enum: RECORD_KINDS }) @IsIn(RECORD_KINDS) record: RecordKind;
  @ApiProperty() @IsString() @Length(1, 100) name: string;
  @ApiProperty() @ValidateNested() @Type(() => ViewDto) view: ViewDto;
  @ApiProperty() @IsBoolean() shared: boolean;
}

/** Kept views of lists of records. */
@ApiTags('views')
@Controller('api/v1/views')
export class ViewsController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(ViewsService) private readonly views: ViewsService,
    @Inject(DestinationService) private readonly destinations: DestinationService,
  ) {}

  @Get()
  @Reads('records', 'Lists kept views')
  all(@ByCaller() caller: Caller): Promise<SavedView[]> {
    return this.database.inWorkspace(caller.workspaceId, (tx) => this.views.all(tx, personOf(caller)));
  }

  @Post()
  @Command('records.add-view', 'Keeps a view', { tells: ['views'] })
  @HttpCode(201)
  async add(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Body() view: NewViewDto,
  ): Promise<SavedView> {
    await this.#check(tx, view.record, view.view);
    return this.views.add(tx, view, personOf(caller));
  }

  @Patch(':id')
  @Command('records.change-view', 'Changes a view', { tells: ['views'] })
  async change(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Param('id') id: string,
    @Body() change: ViewChangeDto,
  ): Promise<SavedView> {
    const changed = await this.views.change(tx, id, change, personOf(caller));
    await this.#check(tx, changed.record, changed.view);
    return changed;
  }

  @Delete(':id')
  @Command('records.remove-view', 'Removes a view', { tells: ['views'] })
  @HttpCode(204)
  remove(@InTransaction() tx: WorkspaceTx, @ByCaller() caller: Caller, @Param('id') id: string): Promise<void> {
    return this.views.remove(tx, id, personOf(caller));
  }

  async #check(tx: WorkspaceTx, record: RecordKind, view: ListView): Promise<void> {
    const { fields, defaultCurrency, teams = {} } = await this.destinations.load(tx);
    const shown = [...listedFields(record, fields), { ...fields[0]!, record, key: 'company' }];
    // “Me” is whoever looks, so it makes sense in any view.
    const setting = { now: new Date().toISOString(), defaultCurrency, me: '', teams };
    const problems = checkView(view, shown, setting);
    if (problems.length) throw new ProblemError('refused', problems[0]!.text, problemsAt(problems, '/view'));
  }
}

function personOf({ by }: Caller): string | null {
  return by.kind === 'person' ? by.id : null;
}
