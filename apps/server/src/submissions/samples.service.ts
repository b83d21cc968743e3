import { Injectable } from '@nestjs/common';
import { answerText, payloadFields, readPayload, type BodyFormat, type PayloadField } from '@haycart/core';
import type { WorkspaceTx } from '../platform/database/database';

/** Which submission of an intake is looked for. */
export type SampleWish =
  /** The one with the most answers. */
  | { kind: 'complete' }
  /** The latest that a route failed on or holds. */
  | { kind: 'failing'; route: string }
  /** The latest with an answer that has a text in it, whatever its capitals. */
  | { kind: 'holding'; text: string };

interface Row {
  id: string;
  at: string;
  format: BodyFormat;
  body: Buffer;
}

const BATCH = 200;
/** How many of the latest are looked through, and how many bytes of them at most. */
const MOST = 5_000;
const MOST_BYTES = 64 * 1024 * 1024;

/** Finds the submission that shows best what a route is to do. */
@Injectable()
export class SamplesService {
  /** Answers its id; `null` where the latest of the intake have none such. */
  async find(tx: WorkspaceTx, intake: string, wish: SampleWish): Promise<string | null> {
    switch (wish.kind) {
      case 'failing':
        return this.#failing(tx, intake, wish.route);
      case 'complete':
        return this.#complete(tx, intake);
      case 'holding':
        return this.#holding(tx, intake, wish.text.trim().toLowerCase());
    }
  }

  async #failing(tx: WorkspaceTx, intake: string, route: string): Promise<string | null> {
    const [row] = await tx.statement<{ id: string }>(
      'failing_sample',
      `select s.id from run r join submission s on s.workspace_id = r.workspace_id and s.id = r.submission_id
       join intake i on i.workspace_id = s.workspace_id and i.id = s.intake_id
       where r.workspace_id = $1 and i.key = $2 and r.route_id = $3 and r.outcome in ('failed', 'held') order by s.received_at desc limit 1`,
      [tx.workspaceId, intake, route],
    );
    return row?.id ?? null;
  }

  async #complete(tx: WorkspaceTx, intake: string): Promise<string | null> {
    let best: { id: string; answers: number } | null = null;
    for await (const { id, fields } of this.#latest(tx, intake)) {
      const answers = fields.filter(({ value }) => answerText(value).trim() !== '').length;
      if (!best || answers > best.answers) best = { id, answers };
    }
    return best?.id ?? null;
  }

  async #holding(tx: WorkspaceTx, intake: string, text: string): Promise<string | null> {
    for await (const { id, fields } of this.#latest(tx, intake))
      if (fields.some(({ value }) => answerText(value).toLowerCase().includes(text))) return id;
    return null;
  }

  /** The latest that can be read, one by one, so that few are in memory at a time. */
  async *#latest(tx: WorkspaceTx, intake: string): AsyncGenerator<{ id: string; fields: PayloadField[] }> {
    let last: Row | null = null;
    let bytes = 0;
    for (let looked = 0; looked < MOST && bytes < MOST_BYTES; looked += BATCH) {
      const rows: Row[] = await tx.statement(
        'samples',
        `select s.id, s.received_at::text as at, s.format, s.body from submission s join intake i on i.workspace_id = s.workspace_id and i.id = s.intake_id
         where s.workspace_id = $1 and i.key = $2 and s.state <> 'set-aside' and ($3::timestamptz is null or (s.received_at, s.id) < ($3, $4::uuid))
         order by s.received_at desc, s.id desc limit $5`,
        [tx.workspaceId, intake, last?.at ?? null, last?.id ?? null, BATCH],
      );
      for (const row of rows) {
        bytes += row.body.length;
        const read = readPayload(row.format, row.body);
        if (read.ok) yield { id: row.id, fields: payloadFields(read.payload) };
      }
      if (rows.length < BATCH) return;
      last = rows.at(-1)!;
    }
  }
}
