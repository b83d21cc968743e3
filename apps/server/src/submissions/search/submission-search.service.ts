import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import { readPayload, searchTerms, submissionWords, whoSent, type BodyFormat } from '@haycart/core';
import { Database, type WorkspaceTx } from '../../platform/database/database';
import { AfterChanges } from '../../platform/jobs/after-changes';
import { isId } from '../../platform/paging';

interface Arrived {
  id: string;
  format: BodyFormat;
  body: Buffer;
}

/** Read at once, of at most so many bytes: bodies may be large. */
const BATCH = 200;
const BYTES = 8 * 1_048_576;
/** A submission becomes visible this long after its id was made, at most: it may be written in a long transaction. */
const SETTLED_MS = 15 * 60_000;
/** Batches that are read before somebody is answered. */
const READ_UP = 5;
const TASK = 'read-for-search';

/**
 * Keeps the words by which submissions are found. They are made a moment after a submission came, so that neither
 * accepting nor routing pays for it; and who searches has the latest ones read first.
 */
@Injectable()
export class SubmissionSearch implements OnModuleInit {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(AfterChanges) private readonly after: AfterChanges,
  ) {}

  onModuleInit(): void {
    this.after.follow({
      task: TASK,
      topic: 'submissions',
      restSeconds: 2,
      work: async (workspaceId, stopping) => {
        while (!stopping.aborted && (await this.database.inWorkspace(workspaceId, (tx) => this.read(tx)))) continue;
      },
    });
  }

  /** Reads what came last for somebody who searches; the rest of a flood is found a moment later. */
  async readUp(workspaceId: string): Promise<void> {
    for (let batch = 0; batch < READ_UP; batch++)
      if (!(await this.database.inWorkspace(workspaceId, (tx) => this.read(tx)))) return;
  }

  /** Reads what is not read yet, one batch of it. Returns whether there may be more. */
  async read(tx: WorkspaceTx): Promise<boolean> {
    const [latest] = await tx.statement<{ id: string }>(
      'search_latest',
      'select submission_id as id from submission_search where workspace_id = $1 order by submission_id desc limit 1',
      [tx.workspaceId],
    );
    const arrived = await tx.statement<Arrived>(
      'search_unread',
      `with unread as (select s.id, s.format, s.body from submission s where s.workspace_id = $1 and s.id >= $2
           and not exists (select 1 from submission_search k where k.workspace_id = s.workspace_id and k.submission_id = s.id)
         order by s.id limit $3),
       sized as (select *, sum(octet_length(body)) over (order by id) - octet_length(body) as before from unread)
       select id, format, body from sized where before < $4`,
      [tx.workspaceId, settledBefore(latest?.id), BATCH, BYTES],
    );
    if (!arrived.length) return false;
    const made = arrived.map(searchRow);
    // Words are handed over as one JSON text each: arrays of different lengths are no array of arrays.
    await tx.statement(
      'search_read',
      `insert into submission_search (workspace_id, submission_id, who, email, words)
       select $1, k.id, k.who, k.email, array_to_tsvector(array(select jsonb_array_elements_text(k.words::jsonb)))
       from unnest($2::uuid[], $3::text[], $4::text[], $5::text[]) k (id, who, email, words) on conflict do nothing`,
      [
        tx.workspaceId,
        made.map(({ id }) => id),
        made.map(({ who }) => who),
        made.map(({ email }) => email),
        made.map(({ words }) => JSON.stringify(words)),
      ],
    );
    return true;
  }
}

/** What somebody types, as PostgreSQL looks for it; null where nothing is typed that could be found. */
export function searchQuery(typed: string): string | null {
  const any = searchTerms(typed).map((all) => all.map(({ word, begins }) => `${quoted(word)}${begins ? ':*' : ''}`));
  return any.length ? any.map((all) => `(${all.join(' & ')})`).join(' | ') : null;
}

const quoted = (word: string) => `'${word.replace(/['\\]/g, '$&$&')}'`;

function searchRow({ id, format, body }: Arrived) {
  const read = readPayload(format, body);
  const payload = read.ok ? read.payload : null;
  const { who, email } = payload ? whoSent(payload) : { who: '', email: '' };
  return { id, who: who.toLowerCase(), email: email.toLowerCase(), words: submissionWords(id, payload) };
}

/** The id from which on there may be some that are not read: those from long enough before the latest are all read. */
function settledBefore(latest: string | undefined): string {
  if (latest === undefined || !isId(latest)) return '00000000-0000-0000-0000-000000000000';
  // The first 48 bits of a UUIDv7 (RFC 9562) are its time in milliseconds.
  const at = Math.max(0, parseInt(latest.replaceAll('-', '').slice(0, 12), 16) - SETTLED_MS);
  const time = at.toString(16).padStart(12, '0');
  return `${time.slice(0, 8)}-${time.slice(8)}-0000-0000-000000000000`;
}
