import { Body, Controller, Delete, Get, HttpCode, Inject, Param, Patch, Post, Query, Req, Res } from '@nestjs/common';
import { ApiConsumes, ApiProperty, ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import { CONSENT_CHANNELS, LIMITS, type ConsentChannel } from '@haycart/core';
import type { ConsentShape, FileShape, NoteShape, TaskLine, TaskShape } from '@haycart/api';
import { IsBoolean, IsIn, IsISO8601, IsOptional, IsString, Length, Matches, ValidateIf } from 'class-validator';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { ByCaller, type Caller } from '../../platform/auth/caller';
import { Command, InTransaction, Reads, ThisCommand } from '../../platform/commands/command';
import type { RunningCommand } from '../../platform/commands/running-command';
import { Database, type WorkspaceTx } from '../../platform/database/database';
import { ProblemError } from '../../platform/errors/problem-error';
import { sendFile } from '../../platform/send-file';
import { receiveFile } from '../../platform/receive-file';
import { ActivitiesService } from './activities.service';
import { kindFrom } from '../record-kinds';

class NoteDto {
  @ApiProperty() @IsString() @Length(1, 100_000) text: string;
}

class NewTaskDto {
  @ApiProperty() @IsString() @Length(1, 1_000) text: string;
  @ApiPropertyOptional() @IsOptional() @IsString() @Length(1, 100) owner?: string;
  @ApiPropertyOptional() @IsOptional() @IsISO8601({ strict: true }) @Matches(/^\d{4}-\d{2}-\d{2}$/) due?: string;
}

class TaskDto {
  @ApiPropertyOptional() @IsOptional() @IsString() @Length(1, 1_000) text?: string;
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

class MineDto {
  @IsOptional() @IsString() @Length(1, 100) owner?: string;
}

/** Notes, tasks, files and consent: what stands beside a record's values. */
@ApiTags('records')
@Controller('api/v1')
export class ActivitiesController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(ActivitiesService) private readonly activities: ActivitiesService,
  ) {}

  /** Open tasks, the next due first. */
  @Get('tasks')
  @Reads('records', 'Lists open tasks')
  tasks(@ByCaller() { workspaceId }: Caller, @Query() { owner }: MineDto): Promise<TaskLine[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.activities.openTasks(tx, owner ?? null));
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
    return this.activities.addConsent(tx, id, consent, caller.by);
  }
}
