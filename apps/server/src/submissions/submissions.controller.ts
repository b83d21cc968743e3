import { Body, Controller, Get, HttpCode, Inject, Param, Post, Query, Res } from '@nestjs/common';
import { ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import { RUN_OUTCOMES, type Page, type SubmissionDetail, type SubmissionShape } from '@haycart/api';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsIn,
  IsISO8601,
  IsOptional,
  IsString,
  IsUUID,
  ValidateNested,
} from 'class-validator';
import type { FastifyReply } from 'fastify';
import { Type } from 'class-transformer';
import { counted } from '@haycart/core';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Command, InTransaction, Reads, ThisCommand } from '../platform/commands/command';
import type { RunningCommand } from '../platform/commands/running-command';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { Events } from '../platform/events/events';
import { ProblemError } from '../platform/errors/problem-error';
import { EXPORT_PORTION, sendExport } from '../platform/export-file';
import { readListCursor, type ListCursor } from '../platform/list-cursor';
import { readLimit } from '../platform/paging';
import { sendFile } from '../platform/send-file';
import { ProfilesService } from './profiles.service';
import { exportSubmissions, SUBMISSION_FORMATS, type SubmissionFormat } from './submission-export';
import { SubmissionSearch } from './search/submission-search.service';
import { needsSearch, SUBMISSION_SORTS, type SubmissionFilter, type SubmissionSort } from './submission-filter';
import { SubmissionQueue } from './submission-queue';
import { SubmissionsService } from './submissions.service';

class SubmissionQuery {
  @IsOptional() @IsString() intake?: string;
  @IsOptional()
  @IsIn([...RUN_OUTCOMES, 'waiting', 'unrouted', 'set-aside', 'cancelled'])
  outcome?: SubmissionFilter['outcome'];
  @IsOptional() @IsISO8601() since?: string;
  @IsOptional() @IsUUID() route?: string;
  /** Words of any answer, an address, a telephone number, or an id. */
  @IsOptional() @IsString() q?: string;
  @IsOptional() @IsIn(SUBMISSION_SORTS) sort?: SubmissionSort;
  @IsOptional() @IsString() limit?: string;
  @IsOptional() @IsString() after?: string;
}

class SubmissionExportQuery extends SubmissionQuery {
  @IsIn(SUBMISSION_FORMATS) format: SubmissionFormat;
}

class ManyDto {
  @ApiPropertyOptional({ type: [String] })
  @IsOptional()
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(1_000)
  @IsUUID('all', { each: true })
  ids?: string[];
  /** All that the list shows with this filter, 10,000 at most. */
  @ApiPropertyOptional() @IsOptional() @ValidateNested() @Type(() => SubmissionQuery) filter?: SubmissionQuery;
}

@ApiTags('submissions')
@Controller('api/v1')
export class SubmissionsController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(Events) private readonly events: Events,
    @Inject(SubmissionsService) private readonly submissions: SubmissionsService,
    @Inject(ProfilesService) private readonly profiles: ProfilesService,
    @Inject(SubmissionQueue) private readonly queue: SubmissionQueue,
    @Inject(SubmissionSearch) private readonly search: SubmissionSearch,
  ) {}

  @Get('submissions')
  @Reads('submissions', 'Lists submissions')
  async list(@ByCaller() { workspaceId }: Caller, @Query() query: SubmissionQuery): Promise<Page<SubmissionShape>> {
    const [filter, limit, after] = [filterFrom(query), readLimit(query.limit), readPlace(query)];
    await this.#readUp(workspaceId, filter);
    return this.database.inWorkspace(workspaceId, (tx) => this.submissions.list(tx, filter, limit, after));
  }

  @Get('submission-outcomes')
  @Reads('submissions', 'Counts submissions by outcome')
  async outcomes(
    @ByCaller() { workspaceId }: Caller,
    @Query() query: SubmissionQuery,
  ): Promise<Record<string, number>> {
    await this.#readUp(workspaceId, filterFrom(query));
    return this.database.inWorkspace(workspaceId, (tx) => this.submissions.outcomes(tx, filterFrom(query)));
  }

  /** Everything that the list shows, as a file. */
  @Get('submissions/export')
  @Reads('submissions', 'Gives submissions as a file')
  async export(
    @ByCaller() { workspaceId }: Caller,
    @Query() { format, ...query }: SubmissionExportQuery,
    @Res() reply: FastifyReply,
  ): Promise<void> {
    const filter = filterFrom(query);
    const { intake } = filter;
    await this.#readUp(workspaceId, filter);
    const profile = intake
      ? await this.database.inWorkspace(workspaceId, (tx) => this.profiles.shape(tx, intake))
      : null;
    await sendExport(reply, 'submissions', format, (take) =>
      this.database.atOneMoment(workspaceId, (tx) => {
        const portions = this.submissions.portions(tx, filter, EXPORT_PORTION);
        return take(exportSubmissions(format, profile?.fields ?? null, portions));
      }),
    );
  }

  @Get('submissions/:id')
  @Reads('submissions', 'Shows a submission')
  one(@ByCaller() { workspaceId }: Caller, @Param('id') id: string): Promise<SubmissionDetail> {
    return this.database.inWorkspace(workspaceId, (tx) => this.submissions.one(tx, id));
  }

  @Get('submissions/:id/files/:file')
  @Reads('submissions', 'Gives a file of a submission')
  async file(
    @ByCaller() { workspaceId }: Caller,
    @Param('id') id: string,
    @Param('file') file: string,
    @Res() reply: FastifyReply,
  ): Promise<void> {
    sendFile(reply, await this.database.inWorkspace(workspaceId, (tx) => this.submissions.file(tx, id, file)));
  }

  /**
   * Routes a submission again where its run was held or failed, or for the first time where it was set aside; what was
   * written stays as it is.
   */
  @Post('submissions/:id/run-again')
  @Command('submissions.run-all-again', 'Has a submission routed again')
  @HttpCode(202)
  async runAgain(@InTransaction() tx: WorkspaceTx, @Param('id') id: string): Promise<{ queued: true }> {
    const { id: known } = await this.submissions.one(tx, id);
    await this.queue.runAgain(tx, [known]);
    await this.events.tell(tx, 'submissions');
    return { queued: true as const };
  }

  /** The same for many at once, named or all that a filter leaves. Those that there are not are not counted. */
  @Post('submissions/run-again')
  @Command('submissions.run-many-again', 'Has submissions routed again', { takesLong: true })
  @HttpCode(202)
  async runManyAgain(
    @ThisCommand() command: RunningCommand,
    @ByCaller() { workspaceId }: Caller,
    @Body() { ids, filter }: ManyDto,
  ): Promise<{ queued: number }> {
    if (!ids && !filter)
      throw new ProblemError('refused', 'Say which submissions: by their ids, or by a filter.', [
        { at: '/ids', code: 'missing', message: 'Give ids or filter.' },
      ]);
    const chosen = filterFrom(filter ?? {});
    await this.#readUp(workspaceId, chosen);
    return this.database.inWorkspace(workspaceId, async (tx) => {
      const queued = await this.queue.runAgain(tx, ids ?? (await this.submissions.ids(tx, chosen)));
      await this.events.tell(tx, 'submissions');
      command.did(`Had ${counted(queued, 'submission')} routed again`);
      await command.note(tx);
      return { queued };
    });
  }

  /** Where a list is made by the search, what came last is read first. */
  async #readUp(workspaceId: string, filter: SubmissionFilter): Promise<void> {
    if (needsSearch(filter)) await this.search.readUp(workspaceId);
  }
}

function filterFrom({ intake, outcome, since, route, q, sort }: SubmissionQuery): SubmissionFilter {
  const search = q?.trim() || undefined;
  return { intake, outcome, since: since ? new Date(since) : undefined, route, search, sort };
}

function readPlace({ after, sort }: SubmissionQuery): ListCursor | null {
  const cursor = readListCursor(after);
  if (!cursor || needsSearch({ sort }) || !Number.isNaN(Date.parse(cursor.value ?? ''))) return cursor;
  throw new ProblemError('refused', 'after takes what an earlier page gave as next.');
}
