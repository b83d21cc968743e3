import { Body, Controller, Delete, Get, HttpCode, Inject, Param, Patch, Post, Query, Res } from '@nestjs/common';
import { ApiProperty, ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import { listedFields, type FieldDefinition, type JsonValue, type RecordKind } from '@haycart/core';
import type { DoneEdit, GroupCount, HistoryEntry, Page, RecordSheet, RecordShape, TouchShape } from '@haycart/api';
import { Type } from 'class-transformer';
import { ArrayMaxSize, IsArray, IsIn, IsObject, IsOptional, IsString, Length, ValidateNested } from 'class-validator';
import type { FastifyReply } from 'fastify';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Command, InTransaction, Reads } from '../platform/commands/command';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { EXPORT_PORTION, EXPORT_TYPES, sendExport, type ExportFormat } from '../platform/export-file';
import { readLimit } from '../platform/paging';
import { DestinationService } from '../destination/destination.service';
import { PeopleService } from '../workspaces/people.service';
import { listSetting } from './lists/list-setting';
import { firstPlace } from './stages/first-place';
import { RecordEditsService } from './edits/record-edits.service';
import { exportRecords } from './lists/record-export';
import { kindFrom } from './record-kinds';
import { RecordListsService, type ListSetting, type RecordQuery } from './lists/record-lists.service';
import { RecordSheetService } from './history/record-sheet.service';
import { RecordsService } from './records.service';

const MOST_AT_ONCE = 10_000;

class QueryDto implements RecordQuery {
  @IsOptional() @IsString() @Length(0, 400) email?: string;
  @IsOptional() @IsString() @Length(0, 100) phone?: string;
  @IsOptional() @IsString() @Length(0, 400) q?: string;
  @IsOptional() @IsString() @Length(0, 100) through?: string;
  @IsOptional() @IsString() @Length(0, 20_000) filter?: string;
  @IsOptional() @IsString() @Length(0, 100) sort?: string;
}

class PageDto extends QueryDto {
  @IsOptional() @IsString() limit?: string;
  @IsOptional() @IsString() after?: string;
}

class GroupsDto extends QueryDto {
  @IsString() @Length(1, 100) by: string;
}

class ExportDto extends QueryDto {
  @IsIn(Object.keys(EXPORT_TYPES)) format: ExportFormat;
  /** Keys of fields, separated by commas; all of them when not said. */
  @IsOptional() @IsString() @Length(0, 20_000) columns?: string;
}

class EditDto {
  @ApiPropertyOptional() @IsOptional() @IsObject() values?: Record<string, JsonValue>;
  @ApiPropertyOptional() @IsOptional() @IsObject() was?: Record<string, JsonValue>;
  @ApiPropertyOptional() @IsOptional() @IsObject() add?: Record<string, string[]>;
  @ApiPropertyOptional() @IsOptional() @IsObject() remove?: Record<string, string[]>;
}

class NewRecordDto {
  @ApiProperty() @IsObject() values: Record<string, JsonValue>;
  @ApiPropertyOptional({ type: [String] })
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(100)
  @IsString({ each: true })
  links?: string[];
  @ApiPropertyOptional() @IsOptional() @IsString() pipeline?: string;
  @ApiPropertyOptional() @IsOptional() @IsString() stage?: string;
}

class ChosenDto {
  @ApiPropertyOptional({ type: [String] })
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(MOST_AT_ONCE)
  @IsString({ each: true })
  ids?: string[];
  /** Instead of ids: everything that a list shows. */
  @ApiPropertyOptional() @IsOptional() @ValidateNested() @Type(() => QueryDto) query?: QueryDto;
}

class BulkEditDto extends ChosenDto {
  @ApiProperty() @ValidateNested() @Type(() => EditDto) edit: EditDto;
}

class LinksDto {
  @ApiPropertyOptional({ type: [String] }) @IsOptional() @IsArray() @IsString({ each: true }) add?: string[];
  @ApiPropertyOptional({ type: [String] }) @IsOptional() @IsArray() @IsString({ each: true }) remove?: string[];
}

/** Contacts, companies, leads and deals: lists of them, each of them, and what people change about them. */
@ApiTags('records')
@Controller('api/v1')
export class RecordsController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(RecordsService) private readonly records: RecordsService,
    @Inject(RecordListsService) private readonly lists: RecordListsService,
    @Inject(RecordSheetService) private readonly sheets: RecordSheetService,
    @Inject(RecordEditsService) private readonly edits: RecordEditsService,
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(PeopleService) private readonly people: PeopleService,
  ) {}

  @Get(':kind')
  @Reads('records', 'Lists records')
  list(
    @ByCaller() caller: Caller,
    @Param('kind') kind: string,
    @Query() { limit, after, ...query }: PageDto,
  ): Promise<Page<RecordShape>> {
    return this.#listing(caller, (tx, setting) =>
      this.lists.page(tx, kindFrom(kind), query, setting, readLimit(limit), after),
    );
  }

  @Get(':kind/count')
  @Reads('records', 'Counts the records that a list has')
  count(@ByCaller() caller: Caller, @Param('kind') kind: string, @Query() query: QueryDto): Promise<{ total: number }> {
    return this.#listing(caller, async (tx, setting) => ({
      total: await this.lists.count(tx, kindFrom(kind), query, setting),
    }));
  }

  @Get(':kind/groups')
  @Reads('records', 'Counts records by the values of a field')
  groups(
    @ByCaller() caller: Caller,
    @Param('kind') kind: string,
    @Query() { by, ...query }: GroupsDto,
  ): Promise<GroupCount[]> {
    return this.#listing(caller, (tx, setting) => this.lists.groups(tx, kindFrom(kind), by, query, setting));
  }

  /** Everything that a list shows, as a file. */
  @Get(':kind/export')
  @Reads('records', 'Gives records as a file')
  async export(
    @ByCaller() caller: Caller,
    @Param('kind') plural: string,
    @Query() { format, columns, ...query }: ExportDto,
    @Res() reply: FastifyReply,
  ): Promise<void> {
    const kind = kindFrom(plural);
    if (format === 'vcf' && kind !== 'contact')
      throw new ProblemError('refused', 'Only contacts can be taken away as vCards.');
    await sendExport(reply, plural, format, (take) =>
      this.database.atOneMoment(caller.workspaceId, async (tx) => {
        const setting = await this.#setting(tx, caller);
        const portions = this.lists.portions(tx, kind, query, setting, EXPORT_PORTION);
        return take(exportRecords(format, chosenColumns(kind, columns, setting), portions));
      }),
    );
  }

  @Get(':kind/:id')
  @Reads('records', 'Shows a record')
  one(@ByCaller() { workspaceId }: Caller, @Param('kind') kind: string, @Param('id') id: string): Promise<RecordShape> {
    return this.database.inWorkspace(workspaceId, (tx) => this.records.one(tx, kindFrom(kind), id));
  }

  /** Everything that the record's page shows. */
  @Get(':kind/:id/sheet')
  @Reads('records', 'Shows all that a record’s page has')
  sheet(
    @ByCaller() { workspaceId }: Caller,
    @Param('kind') kind: string,
    @Param('id') id: string,
  ): Promise<RecordSheet> {
    return this.sheets.sheet(workspaceId, kindFrom(kind), id);
  }

  @Get(':kind/:id/history')
  @Reads('records', 'Lists the changes of a record')
  history(
    @ByCaller() { workspaceId }: Caller,
    @Param('kind') kind: string,
    @Param('id') id: string,
  ): Promise<HistoryEntry[]> {
    return this.database.inWorkspace(workspaceId, async (tx) =>
      this.records.history(tx, kindFrom(kind), id, await this.destinations.load(tx)),
    );
  }

  @Get(':kind/:id/touches')
  @Reads('records', 'Lists the touches of a record')
  touches(@ByCaller() { workspaceId }: Caller, @Param('id') id: string): Promise<TouchShape[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.records.touches(tx, id));
  }

  @Post(':kind')
  @Command('records.add', 'Makes a record')
  @HttpCode(201)
  async create(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Param('kind') plural: string,
    @Body() { values, links = [], pipeline, stage }: NewRecordDto,
  ): Promise<DoneEdit & { id: string }> {
    const kind = kindFrom(plural);
    const destination = await this.destinations.load(tx);
    const placed = firstPlace(kind, { pipeline, stage }, destination, new Date().toISOString());
    return this.edits.create(tx, kind, values, { placed, links }, destination, caller.by);
  }

  @Patch(':kind/:id')
  @Command('records.change', 'Changes a record')
  async change(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Param('kind') kind: string,
    @Param('id') id: string,
    @Body() edit: EditDto,
  ): Promise<DoneEdit> {
    return this.edits.change(tx, kindFrom(kind), [id], edit, await this.destinations.load(tx), caller.by);
  }

  @Delete(':kind/:id')
  @Command('records.delete', 'Deletes a record')
  remove(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Param('kind') kind: string,
    @Param('id') id: string,
  ): Promise<DoneEdit> {
    return this.edits.remove(tx, kindFrom(kind), [id], caller.by);
  }

  /** Changes many records at once, all of them or none. */
  @Post(':kind/edit')
  @Command('records.change-many', 'Changes several records')
  @HttpCode(200)
  async changeMany(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Param('kind') kind: string,
    @Body() { edit, ...chosen }: BulkEditDto,
  ): Promise<DoneEdit> {
    const setting = await this.#setting(tx, caller);
    const ids = await this.#chosen(tx, kindFrom(kind), chosen, setting);
    return this.edits.change(tx, kindFrom(kind), ids, edit, setting.destination, caller.by);
  }

  @Post(':kind/delete')
  @Command('records.delete-many', 'Deletes several records')
  @HttpCode(200)
  async removeMany(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Param('kind') kind: string,
    @Body() chosen: ChosenDto,
  ): Promise<DoneEdit> {
    const ids = await this.#chosen(tx, kindFrom(kind), chosen, await this.#setting(tx, caller));
    return this.edits.remove(tx, kindFrom(kind), ids, caller.by);
  }

  @Post(':kind/:id/links')
  @Command('records.link', 'Links a record to others')
  @HttpCode(200)
  link(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Param('kind') kind: string,
    @Param('id') id: string,
    @Body() change: LinksDto,
  ): Promise<DoneEdit> {
    return this.edits.link(tx, kindFrom(kind), id, change, caller.by);
  }

  #listing<Result>(caller: Caller, work: (tx: WorkspaceTx, setting: ListSetting) => Promise<Result>): Promise<Result> {
    return this.database.inWorkspace(caller.workspaceId, async (tx) => work(tx, await this.#setting(tx, caller)));
  }

  async #setting(tx: WorkspaceTx, { by }: Caller): Promise<ListSetting> {
    const destination = await this.destinations.load(tx);
    const me = by.kind === 'person' ? (await this.people.one(tx, by.id))?.key : undefined;
    return listSetting(destination, me);
  }

  async #chosen(
    tx: WorkspaceTx,
    kind: RecordKind,
    { ids, query }: ChosenDto,
    setting: ListSetting,
  ): Promise<readonly string[]> {
    if (ids ? query : !query) throw new ProblemError('refused', 'Name the records by ids, or by the query of a list.');
    return ids ?? this.lists.ids(tx, kind, query!, setting, MOST_AT_ONCE);
  }
}

/** The columns of a file: those asked for, or every field of the record with its company. */
function chosenColumns(kind: RecordKind, columns: string | undefined, { destination }: ListSetting): FieldDefinition[] {
  const company: FieldDefinition = {
    record: kind,
    key: 'company',
    label: 'Company',
    type: 'text',
    builtIn: true,
    required: false,
  };
  const all = [...listedFields(kind, destination.fields), ...(kind === 'lead' ? [] : [company])];
  if (!columns) return all;
  return columns.split(',').map((key) => {
    const field = all.find((one) => one.key === key);
    if (!field) throw new ProblemError('refused', `There is no field “${key}”.`);
    return field;
  });
}
