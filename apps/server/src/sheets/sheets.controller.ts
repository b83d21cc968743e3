import { Body, Controller, Get, HttpCode, Inject, Param, Post, Query, Req, Res } from '@nestjs/common';
import { ApiConsumes, ApiTags } from '@nestjs/swagger';
import { ENCODINGS, LIMITS, type Encoding } from '@haycart/core';
import type { IntakeShape, SheetLook, SheetShape, SheetTakeBackRehearsal } from '@haycart/api';
import { IsIn, IsOptional, IsString, Length } from 'class-validator';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { TakesSenders } from '../platform/auth/marks';
import { Asks, Command, InTransaction, Reads, ThisCommand } from '../platform/commands/command';
import type { RunningCommand } from '../platform/commands/running-command';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { receiveFile } from '../platform/receive-file';
import { PeopleService } from '../workspaces/people.service';
import { SheetTakeBackService } from './sheet-take-back.service';
import { SheetsService } from './sheets.service';

const LONGEST_KEY = LIMITS.idempotencyKey.most;

class LookDto {
  /** What the text is in; guessed when not said. */
  @IsOptional() @IsIn(ENCODINGS) encoding?: Encoding;
}

class WorksheetDto {
  /** The name of a worksheet that was left. */
  @IsString() @Length(1, 255) name: string;
}

class BringInDto extends LookDto {
  /** The key of an intake that took files before. */
  @IsOptional() @IsString() @Length(1, 60) into?: string;
  /** What a new intake is called; the file's name when not said. */
  @IsOptional() @IsString() @Length(1, 100) name?: string;
}

/** Files of people, brought in. */
@ApiTags('intakes')
@Controller('api/v1/sheets')
@TakesSenders()
export class SheetsController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(SheetsService) private readonly sheets: SheetsService,
    @Inject(SheetTakeBackService) private readonly takeBacks: SheetTakeBackService,
    @Inject(PeopleService) private readonly people: PeopleService,
  ) {}

  /**
   * The file is kept before this answers, and read afterwards. Sent twice under one `Idempotency-Key`, it is brought in
   * once.
   */
  @Post()
  @Command('sheets.bring-in', 'Brings a file in', { takesLong: true })
  @HttpCode(201)
  @ApiConsumes('multipart/form-data')
  async bringIn(
    @ThisCommand() command: RunningCommand,
    @ByCaller() { workspaceId, by }: Caller,
    @Query() { into, name: called, encoding }: BringInDto,
    @Req() request: FastifyRequest,
  ): Promise<{ intake: IntakeShape; file: string }> {
    const sentAs = String(request.headers['idempotency-key'] ?? '');
    if (sentAs.length > LONGEST_KEY)
      throw new ProblemError('refused', `The Idempotency-Key has more than ${LONGEST_KEY} characters.`);
    const { name, bytes } = await receiveFile(request, LIMITS.sheetFile.most);
    return this.database.inWorkspace(workspaceId, async (tx) => {
      const who = await this.people.nameOf(tx, by);
      const brought = await this.sheets.bringIn(tx, { name, bytes, into, called, encoding, sentAs }, who);
      await command.note(tx, { id: brought.file, name });
      return brought;
    });
  }

  /** How a file would be read, by its first bytes, without keeping anything. */
  @Post('look')
  @Asks('sheets', 'Shows the first rows of a file')
  @HttpCode(200)
  @ApiConsumes('multipart/form-data')
  async look(@Query() { encoding }: LookDto, @Req() request: FastifyRequest): Promise<SheetLook> {
    const { bytes } = await receiveFile(request, LIMITS.sheetLook.most);
    return this.sheets.look(bytes, encoding ?? null);
  }

  @Get(':intake')
  @Reads('sheets', 'Shows the files of an intake and how far each is')
  sheet(@ByCaller() { workspaceId }: Caller, @Param('intake') intake: string): Promise<SheetShape> {
    return this.database.inWorkspace(workspaceId, (tx) => this.sheets.sheet(tx, intake));
  }

  /** Another worksheet of a workbook that was brought in. */
  @Post('files/:id/worksheets')
  @Command('sheets.bring-worksheets', 'Brings further worksheets of a file in')
  @HttpCode(204)
  async bringWorksheet(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() { by }: Caller,
    @Param('id') id: string,
    @Body() { name }: WorksheetDto,
  ): Promise<void> {
    return this.sheets.bringWorksheet(tx, id, name, await this.people.nameOf(tx, by));
  }

  @Post('files/:id/cancel')
  @Command('sheets.cancel', 'Stops reading a file')
  @HttpCode(204)
  cancel(@InTransaction() tx: WorkspaceTx, @Param('id') id: string): Promise<void> {
    return this.sheets.cancel(tx, id);
  }

  /** What taking back everything that the file's rows wrote would do, without doing it. */
  @Post('files/:id/take-back/rehearse')
  @Asks('sheets', 'Rehearses taking a file back')
  @HttpCode(200)
  rehearseTakeBack(@ByCaller() { workspaceId }: Caller, @Param('id') id: string): Promise<SheetTakeBackRehearsal> {
    return this.database.inWorkspace(workspaceId, (tx) => this.takeBacks.rehearse(tx, id));
  }

  /** Begins to take it back; the sheet tells how far that is. */
  @Post('files/:id/take-back')
  @Command('sheets.take-back', 'Takes a file back')
  @HttpCode(202)
  takeBack(@InTransaction() tx: WorkspaceTx, @ByCaller() { by }: Caller, @Param('id') id: string): Promise<void> {
    return this.takeBacks.begin(tx, id, by);
  }

  /** The rows that became nothing, with the reasons, to be put right and brought in again. */
  @Get(':intake/refused.csv')
  @Reads('sheets', 'Gives the rows that became nothing as CSV')
  async refused(
    @ByCaller() { workspaceId }: Caller,
    @Param('intake') intake: string,
    @Res() reply: FastifyReply,
  ): Promise<void> {
    const text = await this.database.inWorkspace(workspaceId, (tx) => this.sheets.refused(tx, intake));
    void reply
      .header('content-type', 'text/csv; charset=utf-8')
      .header('content-disposition', 'attachment; filename="refused.csv"')
      .send(text);
  }
}
