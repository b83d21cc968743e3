import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import { readPayload, searchTerms, submissionWords, whoSent, type BodyFormat } from '@haycart/core';
import { Database, type WorkspaceTx } from '../../platform/database/database';
import { AfterChanges } from '../../platform/jobs/after-changes';
import { firstUnread, keepReadUntil, UNREAD } from './unread';

interface Arrived {
  id: string;
  format: BodyFormat;
  body: Buffer;
  called: Record<string, string>;
  names: Record<string, string> | null;
}

/** Read at once, of at most so many bytes: bodies may be large. */
const BATCH = 200;
const BYTES = 8 * 1_048_576;
/** Batches that are read before somebody is answered. */
const READ_UP = 5;
/** So many that a search finds are named one by one; more are not counted for a page. */
export const FEW_FOUND = 10_000;
/** Of more than so many the index gives a part, which is enough to know that they are many. */
const PART = 4 * FEW_FOUND;
/** So many of the latest tell whether a word is in most. */
const SAMPLE = 500;
const TASK = 'read-for-search';

/**
 * Keeps the words by which submissions are found, and counts what arrived. Both are made a moment after a submission came,
 * so that neither accepting nor routing pays for it; and who searches has the latest ones read first.
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
        do stopping.throwIfAborted();
        while (await this.database.inWorkspace(workspaceId, (tx) => this.read(tx)));
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
    const arrived = await tx.statement<Arrived>(
      'search_unread',
      `with unread as (select s.id, s.intake_id, s.format, s.body ${UNREAD} order by s.id limit $3),
       sized as (select *, sum(octet_length(body)) over (order by id) - octet_length(body) as before from unread)
       select z.id, z.format, z.body, i.called, p.names from sized z
       join intake i on i.workspace_id = $1 and i.id = z.intake_id
       left join intake_profile p on p.workspace_id = $1 and p.intake_id = z.intake_id where before < $4 order by z.id`,
      [tx.workspaceId, await firstUnread(tx), BATCH, BYTES],
    );
    if (!arrived.length) {
      await keepReadUntil(tx);
      return false;
    }
    const made = arrived.map(searchRow);
    // Words are handed over as one JSON text each: arrays of different lengths are no array of arrays.
    await tx.statement(
      'search_read',
      `with kept as (insert into submission_search (workspace_id, submission_id, who, email, words)
         select $1, k.id, k.who, k.email, array_to_tsvector(array(select jsonb_array_elements_text(k.words::jsonb)))
         from unnest($2::uuid[], $3::text[], $4::text[], $5::text[]) k (id, who, email, words) on conflict do nothing returning submission_id)
       insert into arrival_count (workspace_id, day, intake_id, arrivals)
       select $1, (s.received_at at time zone 'utc')::date, s.intake_id, count(*)
       from kept join submission s on s.workspace_id = $1 and s.id = kept.submission_id group by 2, 3`,
      [
        tx.workspaceId,
        made.map(({ id }) => id),
        made.map(({ who }) => who),
        made.map(({ email }) => email),
        made.map(({ words }) => JSON.stringify(words)),
      ],
    );
    await keepReadUntil(tx, made.at(-1)!.id);
    return true;
  }
}

/**
 * A filter with what its search finds, where that is little: the database cannot tell beforehand how many words begin like
 * one, and would look through everything in the order of the list.
 */
export async function withFound<Filter extends { search?: string }>(
  tx: WorkspaceTx,
  filter: Filter,
): Promise<Filter & { found?: string[] }> {
  const query = filter.search && searchQuery(filter.search);
  if (!query) return filter;
  if ((await isInMost(tx, query)) || (await findsMany(tx, query))) return filter;
  const rows = await tx.statement<{ id: string }>(
    'search_found',
    `select submission_id as id from submission_search k where k.workspace_id = $1 and k.words @@ $2::tsquery limit $3`,
    [tx.workspaceId, query, FEW_FOUND + 1],
  );
  return rows.length > FEW_FOUND ? filter : { ...filter, found: rows.map(({ id }) => id) };
}

/**
 * Whether what came last tells that a search finds more than few: a word that most have is counted sooner there than in the
 * index. False tells nothing.
 */
async function isInMost(tx: WorkspaceTx, query: string): Promise<boolean> {
  const among = async (latest: number) => {
    const [row] = await tx.statement<{ n: number }>(
      'search_among_latest',
      `select count(*) filter (where found)::int as n from (
         select words @@ $2::tsquery as found from submission_search where workspace_id = $1 order by submission_id desc limit $3) latest`,
      [tx.workspaceId, query, latest],
    );
    return row!.n;
  };
  return (await among(SAMPLE)) * 2 > SAMPLE && (await among(2 * FEW_FOUND)) > FEW_FOUND;
}

/**
 * Whether a search surely finds more than few. The index collects all that it finds before it gives any of it, however little
 * is asked for; so a part is asked for, which tells of many that they are many, and of few nothing.
 */
async function findsMany(tx: WorkspaceTx, query: string): Promise<boolean> {
  const give = (part: number) =>
    tx.statement('search_part', `select set_config('gin_fuzzy_search_limit', $1, true)`, [String(part)]);
  await give(PART);
  const [row] = await tx.statement<{ n: number }>(
    'search_finds_many',
    `select count(*)::int as n from (select 1 from submission_search k where k.workspace_id = $1 and k.words @@ $2::tsquery limit $3) part`,
    [tx.workspaceId, query, FEW_FOUND + 1],
  );
  await give(0);
  return row!.n > FEW_FOUND;
}

/** What somebody types, as PostgreSQL looks for it; null where nothing is typed that could be found. */
export function searchQuery(typed: string): string | null {
  const any = searchTerms(typed).map((all) => all.map(({ word, begins }) => `${quoted(word)}${begins ? ':*' : ''}`));
  return any.length ? any.map((all) => `(${all.join(' & ')})`).join(' | ') : null;
}

const quoted = (word: string) => `'${word.replace(/['\\]/g, '$&$&')}'`;

function searchRow({ id, format, body, called, names }: Arrived) {
  const read = readPayload(format, body);
  const payload = read.ok ? read.payload : null;
  const { who, email } = payload ? whoSent(payload, { ...called, ...names }) : { who: '', email: '' };
  return { id, who: who.toLowerCase(), email: email.toLowerCase(), words: submissionWords(id, payload) };
}
