import { Inject, Injectable } from '@nestjs/common';
import type { IntakeShape, SheetFileShape, SheetLook, SheetShape } from '@haycart/api';
import { LIMITS, type Encoding } from '@haycart/core';
import { stringify } from 'csv-stringify/sync';
import { IntakesService } from '../intakes/intakes.service';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { Events } from '../platform/events/events';
import { csvCell } from '../platform/export-file';
import { newId } from '../platform/new-id';
import { isId } from '../platform/paging';
import { SheetReader } from './reading/sheet-reader';
import { UnreadableFile } from './reading/zip-parts';
import { SheetReading } from './sheet-reading.service';
import type { SheetTakeBack } from './tables';

/** Rows of the error file. */
const MOST_REFUSED = 100_000;

/** Files of people: kept as they came, read row by row into submissions, which routes then take like any other. */
@Injectable()
export class SheetsService {
  constructor(
    @Inject(Events) private readonly events: Events,
    @Inject(IntakesService) private readonly intakes: IntakesService,
    @Inject(SheetReading) private readonly reading: SheetReading,
  ) {}

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
      encoding,
      sentAs = '',
    }: {
      name: string;
      bytes: Buffer;
      into?: string | undefined;
      called?: string | undefined;
      /** What its text is in, where somebody chose. */
      encoding?: Encoding | undefined;
      /** Names this sending: what is sent again under it is the same file. */
      sentAs?: string;
    },
    by: string,
  ): Promise<{ intake: IntakeShape; file: string }> {
    if (sentAs) {
      await tx.statement('sending', 'select pg_advisory_xact_lock(hashtextextended($1 || $2, 0))', [
        tx.workspaceId,
        sentAs,
      ]);
      const [before] = await tx.statement<{ id: string; intake_id: string }>(
        'file_sent_as',
        'select id, intake_id from sheet_file where workspace_id = $1 and sent_as = $2',
        [tx.workspaceId, sentAs],
      );
      if (before) return { intake: await this.intakes.one(tx, before.intake_id), file: before.id };
    }
    const intake = into
      ? await this.intakes.one(tx, into)
      : await this.intakes.add(tx, { kind: 'sheet', name: called?.trim() || (await this.#freeName(tx, name)) });
    if (intake.kind !== 'sheet')
      throw new ProblemError('refused', `${intake.name} takes no files. Bring the file into an intake of its own.`);
    const id = newId();
    await tx.statement(
      'keep_sheet_file',
      `insert into sheet_file (workspace_id, id, intake_id, name, bytes, state, by, sent_as, read_as, at)
       select $1::uuid, $2::uuid, $3::uuid, $4, $5, 'reading', $6, $7, $8, greatest(date_trunc('milliseconds', now()),
         (select max(at) + interval '1 millisecond' from sheet_file where workspace_id = $1 and intake_id = $3))`,
      [tx.workspaceId, id, intake.id, name, bytes, by, sentAs || null, encoding ?? null],
    );
    await this.events.tell(tx, 'submissions', 'intakes');
    tx.afterCommit(() => void this.reading.ask(tx.workspaceId, id).catch(() => {}));
    return { intake, file: id };
  }

  /**
   * How a file would be read, by its beginning: nothing is kept.
   *
   * @throws ProblemError 422 with the reason, when it cannot be read.
   */
  async look(bytes: Buffer, encoding: Encoding | null): Promise<SheetLook> {
    const reader = new SheetReader();
    try {
      const { columns, sure, encoding: readAs, delimiter } = await reader.open(wholeLines(bytes), { encoding });
      const rows = (await reader.next(LOOKED_AT)).flatMap((row) => ('values' in row ? [row.values] : []));
      return { encoding: readAs, delimiter, sure, columns, rows: rows.slice(0, SHOWN) };
    } catch (cause) {
      if (cause instanceof UnreadableFile) throw new ProblemError('refused', cause.message);
      throw cause;
    } finally {
      await reader.close();
    }
  }

  /** The files of an intake, the latest first, and what became of their rows. */
  async sheet(tx: WorkspaceTx, intakeKey: string): Promise<SheetShape> {
    const intake = await this.intakes.one(tx, intakeKey);
    const files = await tx.statement<
      Omit<SheetFileShape, 'at' | 'takenBack'> & { at: Date; taken_back: SheetTakeBack | null }
    >(
      'sheet_files',
      `select id, name, state, octet_length(bytes) as size, columns, encoding, delimiter, worksheet, coalesce(left_out, '[]') as "left", kept, refused, problem, by, at, taken_back
       from sheet_file where workspace_id = $1 and intake_id = $2 order by at desc limit 100`,
      [tx.workspaceId, intake.id],
    );
    const [rows] = await tx.statement<Omit<SheetShape, 'files' | 'refused'>>(
      'sheet_rows',
      `select (select count(*) from submission where workspace_id = $1 and intake_id = $2)::int as rows,
         (select count(*) from submission where workspace_id = $1 and intake_id = $2 and state = 'waiting')::int as waiting,
         count(*) filter (where r.outcome = 'written')::int as written, count(*) filter (where r.outcome = 'held')::int as held,
         count(*) filter (where r.outcome = 'skipped')::int as skipped, count(*) filter (where r.outcome = 'failed')::int as failed,
         count(*) filter (where r.outcome = 'taken-back')::int as "takenBack"
       from submission s join run r on r.workspace_id = s.workspace_id and r.submission_id = s.id where s.workspace_id = $1 and s.intake_id = $2`,
      [tx.workspaceId, intake.id],
    );
    return {
      ...rows!,
      refused: files.reduce((sum, { refused }) => sum + refused, 0),
      files: files.map(({ taken_back, ...file }) => ({
        ...file,
        at: file.at.toISOString(),
        takenBack: told(taken_back),
      })),
    };
  }

  /**
   * Has another worksheet of a workbook read, as a file of its own. Asked for twice, it is read once.
   *
   * @throws ProblemError 404, and 422 when the workbook has no such worksheet beside the one that was read.
   */
  async bringWorksheet(tx: WorkspaceTx, id: string, worksheet: string, by: string): Promise<void> {
    const [file] = isId(id)
      ? await tx.statement<{ left: string[]; intake_id: string }>(
          'workbook',
          `select coalesce(left_out, '[]') as "left", intake_id from sheet_file where workspace_id = $1 and id = $2 for update`,
          [tx.workspaceId, id],
        )
      : [];
    if (!file) throw new ProblemError('not-found', 'There is no such file.');
    if (!file.left.includes(worksheet))
      throw new ProblemError('refused', `There is no worksheet “${worksheet}” left in the workbook.`);
    const made = newId();
    const rows = await tx.statement<{ id: string }>(
      'bring_worksheet',
      `insert into sheet_file (workspace_id, id, intake_id, name, bytes, state, by, sent_as, worksheet, left_out, at)
       select workspace_id, $3::uuid, intake_id, name, bytes, 'reading', $4, $5, $6, '[]', greatest(date_trunc('milliseconds', now()),
         (select max(at) + interval '1 millisecond' from sheet_file where workspace_id = $1 and intake_id = $7))
       from sheet_file where workspace_id = $1 and id = $2 on conflict do nothing returning id`,
      [tx.workspaceId, id, made, by, `${id} ${worksheet}`, worksheet, file.intake_id],
    );
    if (!rows.length) return;
    await tx.statement(
      'worksheet_brought',
      'update sheet_file set left_out = left_out - $3::text where workspace_id = $1 and id = $2',
      [tx.workspaceId, id, worksheet],
    );
    await this.events.tell(tx, 'submissions', 'intakes');
    tx.afterCommit(() => void this.reading.ask(tx.workspaceId, made).catch(() => {}));
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
      inCells([
        ...rows.map(({ values, reason }) => [...columns.map((column) => cell(values[column])), reason, '']),
        ...unread.map(({ row, text, reason, name }) => [
          ...columns.map(() => ''),
          reason,
          `${name}, row ${row}: ${text}`,
        ]),
      ]),
      { header: true, columns: [...columns, 'Why', 'Text of the row'], bom: true },
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
}

/** Rows that are read to show some, of which several may be refused. */
const [LOOKED_AT, SHOWN] = [20, 3];
const LINE_FEED = 0x0a;

/** The beginning of a file up to its last whole line, where it was cut. */
function wholeLines(bytes: Buffer): Buffer {
  if (bytes.length < LIMITS.sheetLook.most - 1) return bytes;
  const end = bytes.lastIndexOf(LINE_FEED);
  return end === -1 ? bytes : bytes.subarray(0, end + 1);
}

/** What is told of taking a file back, without what only the work needs to go on. */
function told(back: SheetTakeBack | null): SheetFileShape['takenBack'] {
  return (
    back && {
      done: back.done,
      stopped: back.stopped ?? false,
      runs: back.runs,
      of: back.of,
      removed: back.removed,
      changed: back.changed,
      left: back.left,
    }
  );
}

function cell(value: unknown): string {
  return value === undefined || value === null ? '' : typeof value === 'string' ? value : JSON.stringify(value);
}

/** No cell is taken for a formula. */
function inCells(rows: readonly string[][]): string[][] {
  return rows.map((row) => row.map(csvCell));
}
