import { execFileSync } from 'node:child_process';
import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  blocksOf,
  comparedForm,
  identityKeysOf,
  isExclusive,
  type FieldValues,
  type RouteDefinition,
} from '@haycart/core';
import pg from 'pg';
import { v7 } from 'uuid';
import { manyPeople } from './people';
import { freshDatabase, prepare, report, startServer } from './support';

const ROWS = 200_000;
const SEED = 900;
const PORT = 4695;
/** Of the speed of a bare COPY with the same indexes: a contact’s keys and blocks are tables of their own. */
const GOAL = 0.1;

const COLUMNS = ['first_name', 'last_name', 'email', 'phone', 'country', 'job_title'] as const;
const answer = (key: string, ...uses: string[]) => ({
  parts: [{ answer: key }],
  finishers: uses.map((use) => ({ use })),
});

/** Contacts by e-mail, and by likeness where nobody has it. */
const route = (intake: string): RouteDefinition => ({
  format: 'haycart.route/1',
  name: 'Import',
  from: [intake],
  writes: [
    {
      as: 'person',
      record: 'contact',
      match: [{ by: 'email' }, { by: 'likeness', accept: 0.85, ask: 0.84 }],
      fills: COLUMNS.map((field) => ({
        field,
        value:
          field === 'email' || field === 'phone' || field === 'country' ? answer(field, field) : answer(field, 'trim'),
      })),
    },
  ],
});

const cell = (value: unknown) => (typeof value === 'string' ? `"${value.replaceAll('"', '""')}"` : '');
const people = [...manyPeople(ROWS, SEED)].map(({ values }): FieldValues => values);

/** Seconds that COPY takes for a table whose rows are made before. */
function copied(databaseUrl: string, table: string, lines: readonly string[]): number {
  const file = join(tmpdir(), `haycart-copy-${process.pid}.csv`);
  writeFileSync(file, lines.join('\n'));
  const begin = process.hrtime.bigint();
  execFileSync('psql', [databaseUrl, '-qc', `\\copy ${table} from '${file}' with (format csv)`]);
  const seconds = Number(process.hrtime.bigint() - begin) / 1e9;
  rmSync(file);
  return seconds;
}

/**
 * Rows a second that COPY puts into the contact table alone, and into it with what stands here for indexes by which it is
 * recognised: the keys and the blocks.
 */
async function bare(): Promise<{ contact: number; whole: number }> {
  const databaseUrl = await freshDatabase('bench_copy');
  const { services, workspaceId } = await prepare(databaseUrl);
  const now = new Date().toISOString();
  const ids = people.map(() => v7());
  const taken = new Set<string>();
  const keys = people.flatMap((values, n) =>
    identityKeysOf('contact', values)
      .filter((key) => !isExclusive(key) || (!taken.has(key.value) && taken.add(key.value)))
      .map(({ kind, value }) => [workspaceId, 'contact', kind, cell(value), ids[n]].join(',')),
  );
  const blocks = people.flatMap((values, n) =>
    blocksOf(comparedForm('contact', values)).map((block) => [workspaceId, 'contact', cell(block), ids[n]].join(',')),
  );
  const contacts = people.map((values, n) =>
    [workspaceId, ids[n], n + 1, ...COLUMNS.map((column) => cell(values[column])), now, now].join(','),
  );
  const columns = `workspace_id, id, number, ${COLUMNS.join(', ')}, created_at, updated_at`;
  const contact = copied(databaseUrl, `contact (${columns})`, contacts);
  const rest =
    copied(databaseUrl, 'identity_key (workspace_id, record_kind, key_kind, value, record_id)', keys) +
    copied(databaseUrl, 'record_block (workspace_id, record_kind, block, record_id)', blocks);
  await services.close();
  return { contact: ROWS / contact, whole: ROWS / (contact + rest) };
}

/** The memory of a process, in MB. */
function memoryOf(pid: number): number {
  return Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1e3;
}

interface Imported {
  perSecond: number;
  readSeconds: number;
  contacts: number;
  asked: number;
  memory: number;
  memoryAtHalf: number;
}

/** Rows a second from sending the file until every row has become a contact, been recognised or is asked about. */
async function ours(): Promise<Imported> {
  const databaseUrl = await freshDatabase('bench_import');
  const { services } = await prepare(databaseUrl);
  const token = await services.tokens.makeFor('bench', 'bench');
  await services.close();
  const server = await startServer(databaseUrl, 'all', PORT);
  const call = async <Answer>(path: string, request: RequestInit = {}): Promise<Answer> => {
    const response = await fetch(`http://127.0.0.1:${PORT}/api/v1${path}`, {
      ...request,
      headers: { authorization: `Bearer ${token}`, ...request.headers },
    });
    if (!response.ok) throw new Error(`${path} answered ${response.status}: ${await response.text()}`);
    return (await response.json()) as Answer;
  };
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  const bring = async (rows: readonly FieldValues[], into: string) => {
    const text = [COLUMNS.join(','), ...rows.map((values) => COLUMNS.map((column) => cell(values[column])).join(','))];
    const form = new FormData();
    form.append('file', new Blob([text.join('\n')]), 'people.csv');
    return call<{ intake: { key: string } }>(`/sheets${into}`, { method: 'POST', body: form });
  };
  // The intake is there before its route, which takes what comes afterwards.
  const { intake } = await bring(people.slice(0, 1), '');
  const json = { 'content-type': 'application/json' };
  const made = await call<{ id: string }>('/routes', {
    method: 'POST',
    headers: json,
    body: JSON.stringify({ definition: route(intake.key) }),
  });
  await call(`/routes/${made.id}/publish`, { method: 'POST', headers: json, body: '{}' });
  const begin = Date.now();
  await bring(people, `?into=${intake.key}`);
  let readSeconds = 0;
  let memoryAtHalf = 0;
  let memory = 0;
  for (;;) {
    const { rows } = await client.query<{ runs: number; read: boolean }>(
      `select (select count(*)::int from run) as runs, (select bool_and(state = 'read') from sheet_file) as read`,
    );
    if (rows[0]!.read && !readSeconds) readSeconds = (Date.now() - begin) / 1e3;
    if (rows[0]!.runs > ROWS / 2 && !memoryAtHalf) memoryAtHalf = memoryOf(server.pid!);
    memory = Math.max(memory, memoryOf(server.pid!));
    if (rows[0]!.runs >= ROWS) break;
    await new Promise((resolve) => setTimeout(resolve, 2_000));
  }
  const seconds = (Date.now() - begin) / 1e3;
  const { rows } = await client.query<{ contacts: number; asked: number }>(
    `select (select count(*)::int from contact) as contacts, (select count(*)::int from run where outcome = 'held') as asked`,
  );
  await client.end();
  server.kill();
  return { perSecond: ROWS / seconds, readSeconds, memory, memoryAtHalf, ...rows[0]! };
}

const copy = await bare();
const { perSecond, readSeconds, contacts, asked, memory, memoryAtHalf } = await ours();
const ratio = perSecond / copy.whole;
report({
  bench: 'import',
  ratio,
  goal: GOAL,
  met: ratio >= GOAL,
  figures: {
    'rows of the file': ROWS,
    'COPY of contacts with their keys and blocks, a second': copy.whole,
    'COPY of contacts alone, a second': copy.contact,
    'to COPY of contacts alone': perSecond / copy.contact,
    'brought in, rows a second': perSecond,
    'read into submissions, seconds': readSeconds,
    'contacts in the end': contacts,
    'asked about': asked,
    'memory of the server at half, MB': memoryAtHalf,
    'memory of the server at most, MB': memory,
  },
});
