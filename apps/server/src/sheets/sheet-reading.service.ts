import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnModuleInit } from '@nestjs/common';
import { counted, type SheetRow } from '@haycart/core';
import { Database } from '../platform/database/database';
import { Events } from '../platform/events/events';
import { Jobs } from '../platform/jobs/jobs';
import { SubmissionInbox } from '../submissions/accept/submission-inbox.service';
import { readFile, type ReadFile } from './read-file';

const TASK = 'read-sheet';
/** Rows that become submissions in one transaction: what is done anew when the machine stops. */
const AT_ONCE = 1_000;

interface FileRow extends Record<string, unknown> {
  intake_id: string;
  intake: string;
  bytes: Buffer;
  looked: number;
  at: Date;
}

/** Reads files that were brought in, by a job, and makes submissions of their rows. What stops goes on where it stood. */
@Injectable()
export class SheetReading implements OnModuleInit, OnApplicationBootstrap {
  readonly #log = new Logger('sheets');

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(Jobs) private readonly jobs: Jobs,
    @Inject(Events) private readonly events: Events,
    @Inject(SubmissionInbox) private readonly inbox: SubmissionInbox,
  ) {}

  onModuleInit(): void {
    this.jobs.register(TASK, (payload) => {
      const { workspaceId, file } = payload as { workspaceId: string; file: string };
      return this.read(workspaceId, file);
    });
  }

  /** Files that were being read when the machine stopped go on. */
  async onApplicationBootstrap(): Promise<void> {
    for (const { id } of await this.database.gate<{ id: string }>('workspaces')) {
      const files = await this.database.inWorkspace(id, (tx) =>
        tx.statement<{ id: string }>(
          'files_to_read',
          `select id from sheet_file where workspace_id = $1 and state = 'reading'`,
          [id],
        ),
      );
      for (const file of files) await this.ask(id, file.id);
    }
  }

  /** Has a file read soon. */
  ask(workspaceId: string, file: string): Promise<void> {
    return this.jobs.addOnce(TASK, { workspaceId, file }, `${TASK} ${file}`, 0);
  }

  /** Reads a file on from the row where it stands, and makes submissions of its rows. */
  async read(workspaceId: string, id: string): Promise<void> {
    const [file] = await this.database.inWorkspace(workspaceId, (tx) =>
      tx.statement<FileRow>(
        'sheet_to_read',
        `select f.intake_id, i.name as intake, f.bytes, f.looked, f.at from sheet_file f
         join intake i on i.workspace_id = f.workspace_id and i.id = f.intake_id where f.workspace_id = $1 and f.id = $2 and f.state = 'reading'`,
        [workspaceId, id],
      ),
    );
    if (!file) return;
    const read = await readFile(file.bytes);
    if (!read.ok) return this.#unreadable(workspaceId, id, read.problem);
    await this.#told(workspaceId, id, read);
    let looked = 0;
    let portion: SheetRow[] = [];
    for (const row of read.rows()) {
      looked += 1;
      if (looked <= file.looked) continue;
      portion.push(row);
      if (portion.length < AT_ONCE) continue;
      if (!(await this.#keep(workspaceId, id, file, portion, looked))) return;
      portion = [];
    }
    if (!looked) {
      const problem = read.columns.length
        ? 'There is a header in the file, and no row below it.'
        : 'There is no row in the file.';
      return this.#unreadable(workspaceId, id, problem);
    }
    if (portion.length && !(await this.#keep(workspaceId, id, file, portion, looked))) return;
    await this.database.inWorkspace(workspaceId, async (tx) => {
      await tx.statement(
        'sheet_read',
        `update sheet_file set state = 'read' where workspace_id = $1 and id = $2 and state = 'reading'`,
        [workspaceId, id],
      );
      await this.events.tell(tx, 'submissions', 'intakes');
    });
    this.#log.log(`A file was read: ${counted(looked, 'row')}.`);
  }

  /** Keeps some rows, and how far reading is, in one transaction. Answers whether it goes on. */
  #keep(
    workspaceId: string,
    id: string,
    file: FileRow,
    portion: readonly SheetRow[],
    looked: number,
  ): Promise<boolean> {
    return this.database.inWorkspace(workspaceId, async (tx) => {
      const [row] = await tx.statement<{ looked: number }>(
        'sheet_goes_on',
        `select looked from sheet_file where workspace_id = $1 and id = $2 and state = 'reading' for update`,
        [workspaceId, id],
      );
      if (row?.looked !== looked - portion.length) return false;
      const kept = portion.flatMap((one) => ('values' in one ? [one] : []));
      const refused = portion.flatMap((one) => ('refused' in one ? [one] : []));
      if (kept.length)
        await this.inbox.keepIn(
          tx,
          kept.map(({ values }) => ({
            workspaceId,
            intakeId: file.intake_id,
            receivedAt: file.at,
            format: 'json',
            body: Buffer.from(JSON.stringify(values)),
            visit: { utm_source: file.intake, utm_medium: 'file' },
            givesWay: true,
          })),
        );
      if (refused.length)
        await tx.statement(
          'keep_refused_rows',
          `insert into sheet_refusal (workspace_id, file_id, row, text, reason) select $1::uuid, $2::uuid, * from unnest($3::int[], $4::text[], $5::text[]) on conflict do nothing`,
          [
            workspaceId,
            id,
            refused.map((one) => one.row),
            refused.map(({ text }) => text.replaceAll('\0', '')),
            refused.map((one) => one.refused),
          ],
        );
      await tx.statement(
        'sheet_looked',
        'update sheet_file set looked = $3, kept = kept + $4, refused = refused + $5 where workspace_id = $1 and id = $2',
        [workspaceId, id, looked, kept.length, refused.length],
      );
      await this.events.tell(tx, 'submissions');
      return true;
    });
  }

  async #told(
    workspaceId: string,
    id: string,
    { columns, encoding, delimiter }: ReadFile & { ok: true },
  ): Promise<void> {
    await this.database.inWorkspace(workspaceId, (tx) =>
      tx.statement(
        'sheet_told',
        'update sheet_file set columns = $3, encoding = $4, delimiter = $5 where workspace_id = $1 and id = $2',
        [workspaceId, id, JSON.stringify(columns), encoding, delimiter],
      ),
    );
  }

  async #unreadable(workspaceId: string, id: string, problem: string): Promise<void> {
    await this.database.inWorkspace(workspaceId, async (tx) => {
      await tx.statement(
        'sheet_unreadable',
        `update sheet_file set state = 'unreadable', problem = $3 where workspace_id = $1 and id = $2`,
        [workspaceId, id, problem],
      );
      await this.events.tell(tx, 'submissions', 'intakes');
    });
  }
}
