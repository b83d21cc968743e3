import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnModuleInit } from '@nestjs/common';
import { checkPayload, counted, type Encoding, type SheetRow } from '@haycart/core';
import { Database } from '../platform/database/database';
import { Events } from '../platform/events/events';
import { Jobs } from '../platform/jobs/jobs';
import { SubmissionInbox } from '../submissions/inbox/submission-inbox.service';
import type { FileReading } from './reading/read-file';
import { SheetReader } from './reading/sheet-reader';
import { UnreadableFile } from './reading/zip-parts';

const TASK = 'read-sheet';
/** Rows that become submissions in one transaction: what is done anew when the machine stops. */
const AT_ONCE = 1_000;

interface SheetJob {
  workspaceId: string;
  file: string;
}

const keyOf = (file: string) => `${TASK} ${file}`;

interface FileRow extends Record<string, unknown> {
  intake_id: string;
  intake: string;
  bytes: Buffer;
  read_as: Encoding | null;
  worksheet: string | null;
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
    this.jobs.register<SheetJob>({
      name: TASK,
      work: ({ workspaceId, file }, stopping) => this.read(workspaceId, file, stopping),
      givenUp: ({ workspaceId, file }, reason) =>
        this.#unreadable(workspaceId, file, `Reading it failed. ${reason} The rows that were read stay.`),
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
      for (const { id: file } of files)
        await this.jobs.resume(TASK, { workspaceId: id, file } as SheetJob, keyOf(file));
    }
  }

  /** Has a file read soon. */
  async ask(workspaceId: string, file: string): Promise<void> {
    await this.jobs.add(TASK, { workspaceId, file } as SheetJob, keyOf(file));
  }

  /** Reads a file on from the row where it stands, and makes submissions of its rows. */
  async read(workspaceId: string, id: string, stopping = new AbortController().signal): Promise<void> {
    const [file] = await this.database.inWorkspace(workspaceId, (tx) =>
      tx.statement<FileRow>(
        'sheet_to_read',
        `select f.intake_id, i.name as intake, f.bytes, f.read_as, f.worksheet, f.looked, f.at from sheet_file f
         join intake i on i.workspace_id = f.workspace_id and i.id = f.intake_id where f.workspace_id = $1 and f.id = $2 and f.state = 'reading'`,
        [workspaceId, id],
      ),
    );
    if (!file) return;
    const reader = new SheetReader();
    try {
      const reading = await reader.open(file.bytes, { encoding: file.read_as, worksheet: file.worksheet });
      await this.#told(workspaceId, id, reading);
      const looked = await this.#readRows(workspaceId, id, file, reader, stopping);
      if (looked === null) return;
      if (!looked) throw new UnreadableFile(noRow(reading));
      await this.#end(workspaceId, id, looked);
    } catch (cause) {
      if (!(cause instanceof UnreadableFile)) throw cause;
      await this.#unreadable(workspaceId, id, cause.message);
    } finally {
      await reader.close();
    }
  }

  /** Makes submissions of the rows from where reading stands. Returns how many rows there are; null when it was cancelled. */
  async #readRows(
    workspaceId: string,
    id: string,
    file: FileRow,
    reader: SheetReader,
    stopping: AbortSignal,
  ): Promise<number | null> {
    let looked = 0;
    for (;;) {
      stopping.throwIfAborted();
      const rows = await reader.next(AT_ONCE);
      if (!rows.length) return looked;
      const before = looked;
      looked += rows.length;
      const portion = rows.slice(Math.max(0, file.looked - before));
      if (portion.length && !(await this.#keep(workspaceId, id, file, portion, looked))) return null;
    }
  }

  async #end(workspaceId: string, id: string, looked: number): Promise<void> {
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
      const checked = portion.map(withinLimits);
      const kept = checked.flatMap((one) => ('values' in one ? [one] : []));
      const refused = checked.flatMap((one) => ('refused' in one ? [one] : []));
      if (kept.length)
        await this.inbox.keepIn(
          tx,
          kept.map(({ values }) => ({
            workspaceId,
            intakeId: file.intake_id,
            receivedAt: file.at,
            format: 'json',
            body: Buffer.from(JSON.stringify(values)),
            visit: {},
            origin: { sheet: file.intake },
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

  async #told(workspaceId: string, id: string, reading: FileReading): Promise<void> {
    const { columns, encoding, delimiter, worksheet, left } = reading;
    await this.database.inWorkspace(workspaceId, (tx) =>
      tx.statement(
        'sheet_told',
        'update sheet_file set columns = $3, encoding = $4, delimiter = $5, worksheet = $6, left_out = coalesce(left_out, $7) where workspace_id = $1 and id = $2',
        [workspaceId, id, JSON.stringify(columns), encoding, delimiter, worksheet, JSON.stringify(left)],
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

/** The row, or why it is no submission: it is held to what every payload is. */
function withinLimits(row: SheetRow): SheetRow {
  const problem = 'values' in row ? checkPayload(row.values) : null;
  if (!problem) return row;
  return {
    row: row.row,
    text: JSON.stringify('values' in row ? row.values : '').slice(0, 1_000),
    refused: problem.text,
  };
}

function noRow({ columns }: FileReading): string {
  return columns.length ? 'There is a header in the file, and no row below it.' : 'There is no row in the file.';
}
