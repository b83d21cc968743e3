import {
  Body,
  Controller,
  Delete,
  Get,
  Header,
  HttpCode,
  Inject,
  Param,
  Patch,
  Post,
  Query,
  Req,
  Res,
} from '@nestjs/common';
import { ApiConsumes, ApiProperty, ApiPropertyOptional, ApiTags, PickType } from '@nestjs/swagger';
import { CONSENT_CHANNELS, LIMITS, TASK_PRIORITIES, type ConsentChannel, type TaskPriority } from '@haycart/core';
import {
  TASK_STATES,
  type ConsentShape,
  type FileShape,
  type NoteShape,
  type Page,
  type TaskCounts,
  type TaskLine,
  type TaskShape,
  type TaskState,
} from '@haycart/api';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsISO8601,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  Matches,
  ValidateIf,
} from 'class-validator';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { recordAddress } from '../../platform/addresses';
import { ByCaller, type Caller } from '../../platform/auth/caller';
import { TakesBasic } from '../../platform/auth/marks';
import { Command, InTransaction, Reads, ThisCommand } from '../../platform/commands/command';
import type { RunningCommand } from '../../platform/commands/running-command';
import type { Config } from '../../platform/config';
import { CONFIG } from '../../platform/tokens';
import { Database, type WorkspaceTx } from '../../platform/database/database';
import { ProblemError } from '../../platform/errors/problem-error';
import { sendFile } from '../../platform/send-file';
import { receiveFile } from '../../platform/receive-file';
import { readCursor, readLimit } from '../../platform/paging';
import { ConsentsService } from '../consents/consents.service';
import { ActivitiesService } from './activities.service';
import { kindFrom } from '../record-kinds';
import { tasksCalendar } from './tasks-calendar';
import { TasksService } from './tasks.service';

/** How many tasks a calendar is given. */
const CALENDAR = 200;

class NoteDto {
  @ApiProperty() @IsString() @Length(1, 100_000) text: string;
}

class NewTaskDto {
  @ApiProperty() @IsString() @Length(1, 1_000) text: string;
  @ApiPropertyOptional() @IsOptional() @IsString() @Length(1, 100_000) body?: string;
  @ApiPropertyOptional({ enum: TASK_PRIORITIES }) @IsOptional() @IsIn(TASK_PRIORITIES) priority?: TaskPriority;
  @ApiPropertyOptional() @IsOptional() @IsString() @Length(1, 100) owner?: string;
  @ApiPropertyOptional() @IsOptional() @IsISO8601({ strict: true }) @Matches(/^\d{4}-\d{2}-\d{2}$/) due?: string;
}

class TaskDto {
  @ApiPropertyOptional() @IsOptional() @IsString() @Length(1, 1_000) text?: string;
  @ApiPropertyOptional() @IsOptional() @ValidateIf((_, value) => value !== null) @IsString() @Length(1, 100_000) body?:
    string | null;
  @ApiPropertyOptional({ enum: TASK_PRIORITIES }) @IsOptional() @IsIn(TASK_PRIORITIES) priority?: TaskPriority;
  @ApiPropertyOptional() @IsOptional() @ValidateIf((_, value) => value !== null) @IsString() owner?: string | null;
  @ApiPropertyOptional()
  @IsOptional()
  @ValidateIf((_, value) => value !== null)
  @IsISO8601({ strict: true })
  @Matches(/^\d{4}-\d{2}-\d{2}$/)
  due?: string | null;
  @ApiPropertyOptional() @IsOptional() @IsBoolean() done?: boolean;
}

class ConsentDto {
  @ApiProperty({ enum: CONSENT_CHANNELS }) @IsIn(CONSENT_CHANNELS) channel: ConsentChannel;
  @ApiProperty({ enum: ['given', 'withdrawn'] }) @IsIn(['given', 'withdrawn']) state: 'given' | 'withdrawn';
  @ApiProperty() @IsString() @Length(1, 10_000) words: string;
  @ApiProperty() @IsString() @Length(1, 1_000) place: string;
}

class TasksQuery {
  @ApiPropertyOptional({ description: 'The key of a person' }) @IsOptional() @IsString() @Length(1, 100) owner?: string;
  @ApiPropertyOptional({ enum: TASK_STATES }) @IsOptional() @IsIn(TASK_STATES) state?: TaskState;
  @IsOptional() @IsString() limit?: string;
  @IsOptional() @IsString() after?: string;
}

class TasksDoneDto {
  @ApiProperty({ type: [String] })
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(1_000)
  @IsUUID(undefined, { each: true })
  ids: string[];
  @ApiProperty() @IsBoolean() done: boolean;
}

class TaskOwnerQuery extends PickType(TasksQuery, ['owner']) {}

/** Notes, tasks, files and consent: what stands beside a record's values. */
@ApiTags('records')
@Controller('api/v1')
export class ActivitiesController {
  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(Database) private readonly database: Database,
    @Inject(ActivitiesService) private readonly activities: ActivitiesService,
    @Inject(ConsentsService) private readonly consents: ConsentsService,
    @Inject(TasksService) private readonly tasks: TasksService,
  ) {}

  /** Open ones with the next due first, done ones with the latest first. */
  @Get('tasks')
  @Reads('records', 'Lists tasks')
  list(
    @ByCaller() { workspaceId }: Caller,
    @Query() { owner, state, limit, after }: TasksQuery,
  ): Promise<Page<TaskLine>> {
    const [most, cursor] = [readLimit(limit), readCursor(after)];
    return this.database.inWorkspace(workspaceId, (tx) =>
      this.tasks.list(tx, { owner: owner ?? null, state: state ?? 'open' }, most, cursor),
    );
  }

  /** For calendars: the token may also be the password of Basic. At most 200 tasks, the next due first. */
  @Get('tasks.ics')
  @Reads('records', 'Gives open tasks as iCalendar')
  @TakesBasic()
  @Header('content-type', 'text/calendar; charset=utf-8')
  async calendar(@ByCaller() { workspaceId }: Caller, @Query() { owner }: TaskOwnerQuery): Promise<string> {
    const { items } = await this.database.inWorkspace(workspaceId, (tx) =>
      this.tasks.list(tx, { owner: owner ?? null, state: 'open' }, CALENDAR, null),
    );
    return tasksCalendar(items, ({ kind, record: id }) => recordAddress(this.config, { kind, id }));
  }

  @Get('tasks/count')
  @Reads('records', 'Counts open tasks')
  count(@ByCaller() { workspaceId }: Caller, @Query() { owner }: TaskOwnerQuery): Promise<TaskCounts> {
    return this.database.inWorkspace(workspaceId, (tx) => this.tasks.count(tx, owner ?? null));
  }

  @Post('tasks/done')
  @Command('records.finish-tasks', 'Marks tasks as done, or as open again')
  @HttpCode(200)
  finish(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() { by }: Caller,
    @Body() { ids, done }: TasksDoneDto,
  ): Promise<{ changed: number }> {
    return this.tasks.finish(tx, ids, done, by);
  }

  @Post(':kind/:id/notes')
  @Command('records.add-note', 'Writes a note')
  @HttpCode(201)
  async addNote(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Param('kind') kind: string,
    @Param('id') id: string,
    @Body() { text }: NoteDto,
  ): Promise<NoteShape> {
    await this.activities.refuseGone(tx, kindFrom(kind), id);
    return this.activities.addNote(tx, id, text, caller.by);
  }

  @Patch(':kind/:id/notes/:note')
  @Command('records.change-note', 'Changes a note')
  @HttpCode(204)
  async changeNote(
    @InTransaction() tx: WorkspaceTx,
    @Param('kind') kind: string,
    @Param('id') id: string,
    @Param('note') note: string,
    @Body() { text }: NoteDto,
  ): Promise<void> {
    await this.activities.refuseGone(tx, kindFrom(kind), id);
    return this.activities.changeNote(tx, id, note, text);
  }

  @Post(':kind/:id/tasks')
  @Command('records.add-task', 'Makes a task')
  @HttpCode(201)
  async addTask(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Param('kind') kind: string,
    @Param('id') id: string,
    @Body() task: NewTaskDto,
  ): Promise<TaskShape> {
    await this.activities.refuseGone(tx, kindFrom(kind), id);
    return this.activities.addTask(tx, id, task, caller.by);
  }

  @Patch(':kind/:id/tasks/:task')
  @Command('records.change-task', 'Changes a task')
  @HttpCode(204)
  async changeTask(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Param('kind') kind: string,
    @Param('id') id: string,
    @Param('task') task: string,
    @Body() change: TaskDto,
  ): Promise<void> {
    await this.activities.refuseGone(tx, kindFrom(kind), id);
    return this.activities.changeTask(tx, id, task, change, caller.by);
  }

  @Delete(':kind/:id/:what/:one')
  @Command('records.remove-activity', 'Removes a note, a task or a file')
  @HttpCode(204)
  async remove(
    @InTransaction() tx: WorkspaceTx,
    @Param('kind') kind: string,
    @Param('id') id: string,
    @Param('what') what: string,
    @Param('one') one: string,
  ): Promise<void> {
    await this.activities.refuseGone(tx, kindFrom(kind), id);
    if (what !== 'notes' && what !== 'tasks' && what !== 'files')
      throw new ProblemError('not-found', 'There is nothing at this address.');
    return this.activities.remove(tx, what, id, one);
  }

  @Post(':kind/:id/files')
  @Command('records.add-file', 'Keeps a file with a record', { takesLong: true })
  @HttpCode(201)
  @ApiConsumes('multipart/form-data')
  async addFile(
    @ThisCommand() command: RunningCommand,
    @ByCaller() caller: Caller,
    @Param('kind') kind: string,
    @Param('id') id: string,
    @Req() request: FastifyRequest,
  ): Promise<FileShape> {
    const file = await receiveFile(request, LIMITS.bodyWithFiles.most);
    return this.database.inWorkspace(caller.workspaceId, async (tx) => {
      await this.activities.refuseGone(tx, kindFrom(kind), id);
      const kept = await this.activities.addFile(tx, id, file, caller.by);
      await command.note(tx, kept);
      return kept;
    });
  }

  @Get(':kind/:id/files/:file')
  @Reads('records', 'Gives a file of a record')
  async file(
    @ByCaller() caller: Caller,
    @Param('kind') kind: string,
    @Param('id') id: string,
    @Param('file') file: string,
    @Res() reply: FastifyReply,
  ): Promise<void> {
    const kept = await this.database.inWorkspace(caller.workspaceId, async (tx) => {
      await this.activities.refuseGone(tx, kindFrom(kind), id);
      return this.activities.file(tx, id, file);
    });
    sendFile(reply, kept);
  }

  @Post('contacts/:id/consents')
  @Command('records.add-consent', 'Records a consent')
  @HttpCode(201)
  async addConsent(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Param('id') id: string,
    @Body() consent: ConsentDto,
  ): Promise<ConsentShape> {
    await this.activities.refuseGone(tx, 'contact', id);
    return this.consents.add(tx, id, consent, caller.by);
  }
}
