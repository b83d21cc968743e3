import { Body, Controller, Delete, Get, HttpCode, Inject, Param, ParseUUIDPipe, Post } from '@nestjs/common';
import { ApiProperty, ApiTags } from '@nestjs/swagger';
import type { ReportMail } from '@haycart/api';
import { Type } from 'class-transformer';
import { IsString, Length, ValidateNested } from 'class-validator';
import { ByCaller, type Caller } from '../../platform/auth/caller';
import { Command, InTransaction, Reads, ThisCommand } from '../../platform/commands/command';
import type { RunningCommand } from '../../platform/commands/running-command';
import { Database, type WorkspaceTx } from '../../platform/database/database';
import { ProblemError } from '../../platform/errors/problem-error';
import { SourcesQuery } from '../sources-query';
import { ReportMails } from './report-mails.service';

class NewReportMailDto {
  @ApiProperty() @IsString() @Length(1, 100) name: string;

  @ApiProperty({ type: SourcesQuery, description: 'What the report is asked for; its period by name' })
  @ValidateNested()
  @Type(() => SourcesQuery)
  query: SourcesQuery;
}

/** Views of where business came from that people are mailed each Monday: each their own. */
@ApiTags('reports')
@Controller('api/v1/report-mails')
export class ReportMailsController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(ReportMails) private readonly mails: ReportMails,
  ) {}

  @Get()
  @Reads('records', 'Lists the views that one is mailed each Monday')
  all(@ByCaller() caller: Caller): Promise<ReportMail[]> {
    return this.database.inWorkspace(caller.workspaceId, (tx) => this.mails.of(tx, personOf(caller)));
  }

  @Post()
  @Command('records.add-report-mail', 'Adds a view that is mailed each Monday')
  @HttpCode(201)
  async add(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Body() { name, query }: NewReportMailDto,
  ): Promise<ReportMail> {
    const id = await this.mails.add(tx, personOf(caller), name, query);
    return this.#one(tx, caller, id);
  }

  /** Once, without waiting for Monday. */
  @Post(':id/send')
  @Command('records.send-report-mail', 'Sends a view that is mailed each Monday', { takesLong: true })
  @HttpCode(200)
  async send(
    @ByCaller() caller: Caller,
    @ThisCommand() command: RunningCommand,
    @Param('id', ParseUUIDPipe) id: string,
  ): Promise<ReportMail> {
    const { workspaceId } = caller;
    await this.database.inWorkspace(workspaceId, (tx) => this.#one(tx, caller, id));
    await this.mails.mailNow({ workspaceId, id });
    return this.database.inWorkspace(workspaceId, async (tx) => {
      const sent = await this.#one(tx, caller, id);
      await command.note(tx, sent);
      return sent;
    });
  }

  @Delete(':id')
  @Command('records.remove-report-mail', 'Removes a view that is mailed each Monday')
  @HttpCode(204)
  remove(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Param('id', ParseUUIDPipe) id: string,
  ): Promise<void> {
    return this.mails.remove(tx, personOf(caller), id);
  }

  async #one(tx: WorkspaceTx, caller: Caller, id: string): Promise<ReportMail> {
    const found = (await this.mails.of(tx, personOf(caller))).find((one) => one.id === id);
    if (!found) throw new ProblemError('not-found', 'There is no such mail of yours.');
    return found;
  }
}

/** A token is nobody who could be mailed to. */
function personOf({ by }: Caller): string {
  if (by.kind === 'person') return by.id;
  throw new ProblemError('not-allowed', 'Views are mailed to people: sign in as one.');
}
