import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnModuleInit } from '@nestjs/common';
import { counted, type SheetRow } from '@haycart/core';
import type { IntakeShape, SheetFileShape, SheetShape } from '@haycart/api';
import { stringify } from 'csv-stringify/sync';
import { IntakesService } from '../intakes/intakes.service';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { Events } from '../platform/events/events';
import { Jobs } from '../platform/jobs/jobs';
import { newId } from '../platform/new-id';
import { isId } from '../platform/paging';
import { SubmissionInbox } from '../submissions/accept/submission-inbox.service';
import { readFile, type ReadFile } from './read-file';

const TASK = 'read-sheet';
/** Rows that become submissions in one transaction: what is done anew when the machine stops. */
const AT_ONCE = 1_000;
/** Rows of the error file. */
const MOST_REFUSED = 100_000;

/** Files of people: kept as they came, read row by row into submissions, which routes then take like any other. */
@Injectable()
export class SheetsService implements OnModuleInit, OnApplicationBootstrap {
  readonly #log = new Logger('sheets');

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(Jobs) private readonly jobs: Jobs,
    @Inject(Events) private readonly events: Events,
    @Inject(IntakesService) private readonly intakes: IntakesService,
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
      for (const file of files) await this.#ask(id, file.id);
    }
  }

  /**
   * Keeps a file, durable before this answers, and has it read: into a new intake, or into one that took files before.
   *
   * @throws ProblemError 422 when the intake takes no files.
   */
  async bringIn(
    tx: WorkspaceTx,
    {
      name,
      bytes,
      into,
      called,
    }: { name: string; bytes: Buffer; into?: string | undefined; called?: string | undefined },
    by: string,
  ): Promise<{ intake: IntakeShape; file: string }> {
    const intake = into
      ? await this.intakes.one(tx, into)
      : await this.intakes.add(tx, { kind: 'sheet', name: called?.trim() || (await this.#freeName(tx, name)) });
    if (intake.kind !== 'sheet')
      throw new ProblemError('refused', `${intake.name} takes no files. Bring the file into an intake of its own.`);
    const id = newId();
    await tx.statement(
      'keep_sheet_file',
      `insert into sheet_file (workspace_id, id, intake_id, name, bytes, state, by, at) values ($1, $2, $3, $4, $5, 'reading', $6, now())`,
      [tx.workspaceId, id, intake.id, name, bytes, by],
    );
    await this.events.tell(tx, 'submissions', 'intakes');
    tx.afterCommit(() => void this.#ask(tx.workspaceId, id).catch(() => {}));
    return { intake, file: id };
  }

  /** The files of an intake, the latest first, and what became of their rows. */
  async sheet(tx: WorkspaceTx, intakeKey: string): Promise<SheetShape> {
    const intake = await this.intakes.one(tx, intakeKey);
    const files = await tx.statement<Omit<SheetFileShape, 'at'> & { at: Date }>(
      'sheet_files',
      `select id, name, state, octet_length(bytes) as size, columns, encoding, delimiter, kept, refused, problem, by, at
       from sheet_file where workspace_id = $1 and intake_id = $2 order by at desc limit 100`,
      [tx.workspaceId, intake.id],
    );
    const [rows] = await tx.statement<Omit<SheetShape, 'files' | 'refused'>>(
      'sheet_rows',
      `select (select count(*) from submission where workspace_id = $1 and intake_id = $2)::int as rows,
         (select count(*) from submission where workspace_id = $1 and intake_id = $2 and state = 'waiting')::int as waiting,
         count(*) filter (where r.outcome = 'written')::int as written, count(*) filter (where r.outcome = 'held')::int as held,
         count(*) filter (where r.outcome = 'skipped')::int as skipped, count(*) filter (where r.outcome = 'failed')::int as failed
       from submission s join run r on r.workspace_id = s.workspace_id and r.submission_id = s.id where s.workspace_id = $1 and s.intake_id = $2`,
      [tx.workspaceId, intake.id],
    );
    return {
      ...rows!,
      refused: files.reduce((sum, { refused }) => sum + refused, 0),
      files: files.map((file) => ({ ...file, at: file.at.toISOString() })),
    };
  }

  /** Stops reading a file; the rows that were kept by then stay. */
  async cancel(tx: WorkspaceTx, id: string): Promise<void> {
    const [row] = isId(id)
      ? await tx.statement<{ id: string }>(
          'cancel_sheet',
          `update sheet_file set state = case when state = 'reading' then 'cancelled' else state end where workspace_id = $1 and id = $2 returning id`,
          [tx.workspaceId, id],
        )
      : [];
    if (!row) throw new ProblemError('not-found', 'There is no such file.');
    await this.events.tell(tx, 'submissions');
  }

  /**
   * The rows that became nothing, as CSV with the reasons: those that could not be read, and those whose runs failed. Put
   * right, it can be brought in again.
   */
  async refused(tx: WorkspaceTx, intakeKey: string): Promise<string> {
    const intake = await this.intakes.one(tx, intakeKey);
    const unread = await tx.statement<{ row: number; text: string; reason: string; name: string }>(
      'refused_rows',
      `select f.name, r.row, r.text, r.reason from sheet_refusal r join sheet_file f on f.workspace_id = r.workspace_id and f.id = r.file_id
       where r.workspace_id = $1 and f.intake_id = $2 order by f.at, r.row limit ${MOST_REFUSED}`,
      [tx.workspaceId, intake.id],
    );
    const failed = await tx.statement<{ body: Buffer; reason: string }>(
      'failed_rows',
      `select s.body, r.summary as reason from submission s join run r on r.workspace_id = s.workspace_id and r.submission_id = s.id
       where s.workspace_id = $1 and s.intake_id = $2 and r.outcome = 'failed' order by s.id limit ${MOST_REFUSED}`,
      [tx.workspaceId, intake.id],
    );
    const rows = failed.map(({ body, reason }) => ({
      values: JSON.parse(body.toString()) as Record<string, unknown>,
      reason,
    }));
    const columns = [...new Set(rows.flatMap(({ values }) => Object.keys(values)))];
    return stringify(
      [
        ...rows.map(({ values, reason }) => [...columns.map((column) => cell(values[column])), reason, '']),
        ...unread.map(({ row, text, reason, name }) => [
          ...columns.map(() => ''),
          reason,
          `${name}, row ${row}: ${text}`,
        ]),
      ],
      { header: true, columns: [...columns, 'Why', 'What stands there'], escape_formulas: true, bom: true },
    );
  }

  /** The file's name, with a number where there is an intake of that name. */
  async #freeName(tx: WorkspaceTx, file: string): Promise<string> {
    const name = file.replace(/\.[^.]*$/, '').slice(0, 100) || 'File';
    const taken = new Set((await this.intakes.all(tx)).map((intake) => intake.name));
    let free = name;
    for (let n = 2; taken.has(free); n++) free = `${name} ${n}`;
    return free;
  }

  /** Reads a file on from the row where it stands, and makes submissions of its rows. */
  async read(workspaceId: string, id: string): Promise<void> {
    const [file] = await this.database.inWorkspace(workspaceId, (tx) =>
      tx.statement<FileRow>(
        'sheet_to_read',
        `select intake_id, bytes, looked, at from sheet_file where workspace_id = $1 and id = $2 and state = 'reading'`,
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
            visit: {},
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

  #ask(workspaceId: string, file: string): Promise<void> {
    return this.jobs.addOnce(TASK, { workspaceId, file }, `${TASK} ${file}`, 0);
  }
}

interface FileRow extends Record<string, unknown> {
  intake_id: string;
  bytes: Buffer;
  looked: number;
  at: Date;
}

function cell(value: unknown): string {
  return value === undefined || value === null ? '' : typeof value === 'string' ? value : JSON.stringify(value);
}
