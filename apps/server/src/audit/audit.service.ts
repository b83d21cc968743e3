import { Inject, Injectable } from '@nestjs/common';
import type { AuditLine, Page } from '@haycart/api';
import { and, desc, eq, gte, like, lt, sql } from 'drizzle-orm';
import type { CommandMark } from '../platform/commands/command';
import type { CommandLine } from '../platform/commands/running-command';
import type { WorkspaceTx } from '../platform/database/database';
import { newId } from '../platform/new-id';
import { pageOf, type Cursor } from '../platform/paging';
import { PeopleService } from '../workspaces/people.service';
import { audit } from './tables';

/** What lines are wanted; each of these narrows. */
export interface AuditFilter {
  /** The id of a person or token. */
  actor?: string | undefined;
  /** A whole command, or the permission that several need. */
  command?: string | undefined;
  subject?: string | undefined;
  since?: Date | undefined;
  before?: Date | undefined;
}

/** For how long saving the same thing again adds no line. */
const GOES_ON = '10 minutes';
const LONGEST_TEXT = 1_000;
const LONGEST_SUBJECT = 200;

/** The lines that commands leave. */
@Injectable()
export class AuditService {
  constructor(@Inject(PeopleService) private readonly people: PeopleService) {}

  async keep(tx: WorkspaceTx, { name, goesOn }: CommandMark, { by, subject, text }: CommandLine): Promise<void> {
    await tx.statement(
      'keep_audit_line',
      `insert into audit (workspace_id, id, actor_kind, actor_id, actor, command, subject, text)
       select $1::uuid, $2::uuid, $3, $4::uuid, $5, $6, $7, $8
       where not $9::boolean or not exists (
         select 1 from audit where workspace_id = $1 and actor_id = $4 and command = $6 and subject is not distinct from $7 and at > now() - interval '${GOES_ON}')`,
      [
        tx.workspaceId,
        newId(),
        by.kind,
        by.id,
        await this.people.nameOf(tx, by),
        name,
        subject?.slice(0, LONGEST_SUBJECT) ?? null,
        text.slice(0, LONGEST_TEXT),
        goesOn,
      ],
    );
  }

  /** One page, the latest first. */
  async list(tx: WorkspaceTx, filter: AuditFilter, limit: number, after: Cursor | null): Promise<Page<AuditLine>> {
    const rows = await this.#rows(tx, filter, limit + 1, after);
    return pageOf(rows, limit, lineOf, ({ place, id }) => ({ at: place, id }));
  }

  /** All that a filter leaves, in portions, the latest first. */
  async *portions(tx: WorkspaceTx, filter: AuditFilter, size: number): AsyncGenerator<AuditLine[]> {
    for (let after: Cursor | null = null; ;) {
      const rows: Row[] = await this.#rows(tx, filter, size, after);
      if (rows.length) yield rows.map(lineOf);
      const last = rows.at(-1);
      if (!last || rows.length < size) return;
      after = { at: last.place, id: last.id };
    }
  }

  #rows(
    tx: WorkspaceTx,
    { actor, command, subject, since, before }: AuditFilter,
    limit: number,
    after: Cursor | null,
  ): Promise<Row[]> {
    return tx.db
      .select({
        id: audit.id,
        at: audit.at,
        place: sql<string>`to_char(${audit.at} at time zone 'utc', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"')`,
        actorKind: audit.actorKind,
        actorId: audit.actorId,
        actor: audit.actor,
        command: audit.command,
        subject: audit.subject,
        text: audit.text,
      })
      .from(audit)
      .where(
        and(
          eq(audit.workspaceId, tx.workspaceId),
          actor === undefined ? undefined : eq(audit.actorId, actor),
          command === undefined
            ? undefined
            : command.includes('.')
              ? eq(audit.command, command)
              : like(audit.command, `${command}.%`),
          subject === undefined ? undefined : eq(audit.subject, subject),
          since && gte(audit.at, since),
          before && lt(audit.at, before),
          after ? sql`(${audit.at}, ${audit.id}) < (${after.at}::timestamptz, ${after.id}::uuid)` : undefined,
        ),
      )
      .orderBy(desc(audit.at), desc(audit.id))
      .limit(limit);
  }
}

type Row = Omit<typeof audit.$inferSelect, 'workspaceId'> & { place: string };

function lineOf({ id, at, actorKind, actorId, actor, command, subject, text }: Row): AuditLine {
  return {
    id,
    at: at.toISOString(),
    actor: { kind: actorKind, id: actorId, name: actor },
    command,
    subject,
    text,
  };
}
