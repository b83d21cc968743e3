import { Controller, Get, Inject, Query, Res } from '@nestjs/common';
import { ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import type { AuditLine, Page } from '@haycart/api';
import { IsIn, IsISO8601, IsOptional, IsString, IsUUID, Length, Matches } from 'class-validator';
import type { FastifyReply } from 'fastify';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Database } from '../platform/database/database';
import { EXPORT_PORTION, exportTable, exportTexts, sendExport, type ExportColumn } from '../platform/export-file';
import { readCursor, readLimit } from '../platform/paging';
import { AuditService, type AuditFilter } from './audit.service';
import { Reads } from '../platform/commands/command';

const FORMATS = ['csv', 'xlsx', 'jsonl'] as const;

class AuditQuery {
  @ApiPropertyOptional({ description: 'The id of a person or token' }) @IsOptional() @IsUUID() actor?: string;
  @ApiPropertyOptional({ description: 'A command, as routes.publish, or what is before its point' })
  @IsOptional()
  @Matches(/^[a-z-]+(\.[a-z-]+)?$/)
  @Length(1, 100)
  command?: string;
  @ApiPropertyOptional({ description: 'The id or key of what it was done to' })
  @IsOptional()
  @IsString()
  @Length(1, 200)
  subject?: string;
  @IsOptional() @IsISO8601() since?: string;
  @IsOptional() @IsISO8601() before?: string;
  @IsOptional() @IsString() limit?: string;
  @IsOptional() @IsString() after?: string;
}

class AuditExportQuery extends AuditQuery {
  @ApiPropertyOptional({ enum: FORMATS }) @IsOptional() @IsIn(FORMATS) format?: (typeof FORMATS)[number];
}

/** Who did what, and when. */
@ApiTags('audit')
@Controller('api/v1/audit')
export class AuditController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(AuditService) private readonly audit: AuditService,
  ) {}

  @Get()
  @Reads('account', 'Lists what people and tokens did, the latest first')
  list(@ByCaller() { workspaceId }: Caller, @Query() query: AuditQuery): Promise<Page<AuditLine>> {
    const [filter, limit, after] = [filterFrom(query), readLimit(query.limit), readCursor(query.after)];
    return this.database.inWorkspace(workspaceId, (tx) => this.audit.list(tx, filter, limit, after));
  }

  @Get('export')
  @Reads('account', 'Gives what people and tokens did as a file')
  async export(
    @ByCaller() { workspaceId }: Caller,
    @Query() { format = 'csv', ...query }: AuditExportQuery,
    @Res() reply: FastifyReply,
  ): Promise<void> {
    const filter = filterFrom(query);
    await sendExport(reply, 'audit', format, (take) =>
      this.database.atOneMoment(workspaceId, (tx) => {
        const portions = this.audit.portions(tx, filter, EXPORT_PORTION);
        return take(
          format === 'jsonl'
            ? exportTexts(portions, (line) => `${JSON.stringify(line)}\n`)
            : exportTable(format, 'Audit', COLUMNS, portions),
        );
      }),
    );
  }
}

const COLUMNS: ExportColumn<AuditLine>[] = [
  { heading: 'Time', cell: ({ at }) => new Date(at) },
  { heading: 'Who', cell: ({ actor }) => actor.name },
  { heading: 'What', cell: ({ text }) => text },
  { heading: 'Command', cell: ({ command }) => command },
  { heading: 'On', cell: ({ subject }) => subject },
];

function filterFrom({ actor, command, subject, since, before }: AuditQuery): AuditFilter {
  return {
    actor,
    command,
    subject,
    since: since === undefined ? undefined : new Date(since),
    before: before === undefined ? undefined : new Date(before),
  };
}
