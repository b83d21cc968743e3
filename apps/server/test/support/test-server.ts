import 'reflect-metadata';
import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, beforeEach } from '@jest/globals';
import type { FieldDefinition, FormDefinition, JsonValue, Pipeline } from '@haycart/core';
import type { NestFastifyApplication } from '@nestjs/platform-fastify';
import pg from 'pg';
import { FieldsService } from '../../src/fields/fields.service';
import { FormsService } from '../../src/forms/forms.service';
import { IntakesService } from '../../src/intakes/intakes.service';
import type { Config } from '../../src/platform/config';
import { Database } from '../../src/platform/database/database';
import { prepareDatabase } from '../../src/platform/database/migrate';
import { RoutesService } from '../../src/routes/routes.service';
import { createServerApp } from '../../src/server';
import { PeopleService } from '../../src/workspaces/people.service';
import { TokensService } from '../../src/workspaces/tokens.service';
import { WorkspacesService } from '../../src/workspaces/workspaces.service';
import { writeDownRows } from './seen-rows';
import { routeFrom } from './routes';

writeDownRows();

const folder = (path: string) => fileURLToPath(new URL(path, import.meta.url));
export const MIGRATIONS = folder('../../drizzle');

const TEST_KEY = randomBytes(32);

/** A migrated database that others are copied from, on each cluster. */
const TEMPLATE = 'migrated';
/** Any number: it names the lock under which one process at a time makes the template, or copies it. */
const TEMPLATE_LOCK = 4_600_002;

/** A database of its own on the tests' PostgreSQL, migrated. */
export async function newDatabase(cluster = process.env.HAYCART_TEST_CLUSTER!): Promise<string> {
  const name = `t_${randomUUID().replaceAll('-', '')}`;
  const admin = new pg.Client({ connectionString: `${cluster}/postgres` });
  await admin.connect();
  try {
    await admin.query('select pg_advisory_lock($1)', [TEMPLATE_LOCK]);
    const { rowCount } = await admin.query('select 1 from pg_database where datname = $1 and datistemplate', [
      TEMPLATE,
    ]);
    if (!rowCount) await makeTemplate(admin, cluster);
    await admin.query(`create database ${name} template ${TEMPLATE}`);
  } finally {
    await admin.end();
  }
  return prepareDatabase({ databaseUrl: `${cluster}/${name}` }, MIGRATIONS);
}

async function makeTemplate(admin: pg.Client, cluster: string): Promise<void> {
  await admin.query(`drop database if exists ${TEMPLATE}`);
  await admin.query(`create database ${TEMPLATE}`);
  await prepareDatabase({ databaseUrl: `${cluster}/${TEMPLATE}` }, MIGRATIONS);
  await admin.query(`alter database ${TEMPLATE} is_template true`);
}

/** The address of the same database as its owner, for what the server itself may not do. */
export function asOwner(databaseUrl: string, cluster = process.env.HAYCART_TEST_CLUSTER!): string {
  return `${cluster}${new URL(databaseUrl).pathname}`;
}

/** A real server on a real database, with one workspace that has a token. */
export class TestServer {
  private constructor(
    readonly app: NestFastifyApplication,
    readonly base: string,
    readonly databaseUrl: string,
  ) {}

  static async start(
    databaseUrl: string,
    change: Partial<Config> = {},
    before: (app: NestFastifyApplication) => void = () => {},
  ): Promise<TestServer> {
    const config: Config = {
      host: '127.0.0.1',
      port: 0,
      databaseUrl,
      ownerUrl: null,
      background: true,
      pace: 0.1,
      role: 'all',
      logLevel: 'silent',
      demo: false,
      landingPort: null,
      returnPort: null,
      nameServer: null,
      setupCode: 'code',
      setupCodeFile: null,
      secretKeys: [TEST_KEY],
      trustedProxies: [],
      privateTargets: ['127.0.0.0/8', '::1'],
      publicUrl: null,
      open: [],
      webFolder: null,
      ...change,
    };
    const app = await createServerApp(config, folder('../../dist/public'));
    before(app);
    await app.listen(0, '127.0.0.1');
    return new TestServer(app, await app.getUrl(), databaseUrl);
  }

  get database(): Database {
    return this.app.get(Database);
  }

  stop(): Promise<void> {
    return this.app.close();
  }

  post(path: string, body: BodyInit, headers: Record<string, string> = {}): Promise<Response> {
    return fetch(`${this.base}${path}`, { method: 'POST', body, headers, redirect: 'manual' });
  }

  postJson(path: string, body: JsonValue, headers: Record<string, string> = {}): Promise<Response> {
    return this.post(path, JSON.stringify(body), { 'content-type': 'application/json', ...headers });
  }
}

export const PIPELINE: Pipeline = {
  key: 'new-builds',
  name: 'New builds',
  record: 'deal',
  stages: [
    { key: 'enquiry', name: 'Enquiry', state: 'open' },
    { key: 'design', name: 'Design', state: 'open' },
    { key: 'won', name: 'Won', state: 'won' },
  ],
};
const BAYS: FieldDefinition = {
  record: 'deal',
  key: 'bays',
  label: 'Bays',
  type: 'whole-number',
  builtIn: false,
  required: false,
};

export const FORM: FormDefinition = {
  format: 'haycart.form/1',
  title: 'Ask <us>',
  language: 'en',
  button: 'Send',
  after: { do: 'thank', title: 'Thank you, {name}', text: 'We have it.' },
  items: [
    { name: 'name', type: 'text', label: 'Name', required: true },
    { name: 'email', type: 'email', label: 'E-mail', required: true },
    { name: 'grow', type: 'one-of', label: 'What?', options: [{ value: 'moss', label: 'Moss' }] },
    { name: 'ok', type: 'consent', label: 'You may write to me' },
    { name: 'channel', type: 'hidden', label: '', value: 'web' },
  ],
};

/** A workspace to test in, with its API called as a script would. */
export class TestWorkspace {
  private constructor(
    readonly server: TestServer,
    readonly key: string,
    readonly id: string,
    readonly token: string,
    readonly endpoint: string,
    readonly form: string,
  ) {}

  static async make(server: TestServer): Promise<TestWorkspace> {
    const key = `w${randomUUID().slice(0, 8)}`;
    const { app } = server;
    const made = await app
      .get(WorkspacesService)
      .add(
        { key, name: `Workspace ${key}`, defaultCountry: 'GB', defaultCurrency: 'GBP', pipelines: [PIPELINE] },
        async (tx) => {
          await app.get(FieldsService).add(tx, [BAYS]);
          await app
            .get(PeopleService)
            .add(tx, { name: 'Robin Nye', email: `${key}@quillfern.example`, password: 'a long password' });
          const endpoint = await app.get(IntakesService).add(tx, { kind: 'endpoint', name: 'Dealers' });
          const form = await app.get(FormsService).add(tx, 'Survey', FORM, { slug: `f-${key}` });
          await app.get(FormsService).publish(tx, form.key, 'Robin Nye', {});
          return { id: tx.workspaceId, endpoint: endpoint.key, form: form.key };
        },
      );
    return new TestWorkspace(
      server,
      key,
      made.id,
      await app.get(TokensService).makeFor(key, 'test'),
      made.endpoint,
      made.form,
    );
  }

  call<Answer>(method: string, path: string, body?: unknown): Promise<{ status: number; body: Answer }> {
    return this.#send(method, path, body, { authorization: `Bearer ${this.token}` });
  }

  async #send<Answer>(
    method: string,
    path: string,
    body: unknown,
    who: Record<string, string>,
  ): Promise<{ status: number; body: Answer }> {
    const response = await fetch(`${this.server.base}/api/v1${path}`, {
      method,
      headers: { ...who, ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    const text = await response.text();
    return { status: response.status, body: (text ? JSON.parse(text) : undefined) as Answer };
  }

  /** Sends a file to an address of the API. */
  async attach<Answer>(
    path: string,
    name: string,
    text: BlobPart,
    method = 'POST',
  ): Promise<{ status: number; body: Answer }> {
    const form = new FormData();
    form.append('file', new Blob([text], { type: 'text/plain' }), name);
    const headers = { authorization: `Bearer ${this.token}` };
    const response = await fetch(`${this.server.base}/api/v1${path}`, { method, headers, body: form });
    return { status: response.status, body: (await response.json()) as Answer };
  }

  /** Signs its person in, and answers how they call the API. */
  async signIn(): Promise<typeof this.call> {
    const answer = await this.server.postJson('/api/v1/session', {
      email: `${this.key}@quillfern.example`,
      password: 'a long password',
    });
    const cookie = answer.headers.get('set-cookie')!.split(';')[0]!;
    return (method, path, body) => this.#send(method, path, body, { cookie });
  }

  async get<Answer>(path: string): Promise<Answer> {
    const { status, body } = await this.call<Answer>('GET', path);
    if (status !== 200) throw new Error(`GET ${path} answered ${status}: ${JSON.stringify(body)}`);
    return body;
  }

  /** A published route from the endpoint, or from what is given. */
  publish(definition = routeFrom(this.endpoint)): Promise<string> {
    const routes = this.server.app.get(RoutesService);
    return this.server.database.inWorkspace(this.id, async (tx) => {
      const { id } = await routes.add(tx, definition);
      await routes.publish(tx, id, 'test', null);
      return id;
    });
  }

  /** Posts to the endpoint and answers the submission's id. */
  async submit(payload: JsonValue, headers: Record<string, string> = {}): Promise<string> {
    let response = await this.server.postJson(`/in/${this.endpoint}`, payload, headers);
    // A machine that is busy says so; a sender sends again.
    while (response.status === 503) response = await this.server.postJson(`/in/${this.endpoint}`, payload, headers);
    if (response.status !== 202) throw new Error(`The endpoint answered ${response.status}: ${await response.text()}`);
    return ((await response.json()) as { submissionId: string }).submissionId;
  }

  /** Answers once nothing waits to be routed. */
  async handled(): Promise<void> {
    const waiting = () =>
      this.query<{ n: number }>(`select count(*)::int as n from submission where state = 'waiting'`);
    await until(waiting, ([row]) => row!.n === 0);
  }

  /** One row of the workspace's data, asked as the server asks. */
  query<Row extends pg.QueryResultRow>(text: string, values: unknown[] = []): Promise<Row[]> {
    return this.server.database.inWorkspace(this.id, (tx) =>
      tx.statement<Row>(`test ${createHash('sha1').update(text).digest('hex')}`, text, values),
    );
  }
}

/** A server for a file of tests, on a database of its own, and for each test a workspace of its own. */
export function eachInWorkspace(take: (made: { server: TestServer; workspace: TestWorkspace }) => unknown): void {
  let server: TestServer;
  beforeAll(async () => {
    server = await TestServer.start(await newDatabase());
  });
  beforeEach(async () => {
    await take({ server, workspace: await TestWorkspace.make(server) });
  });
  afterAll(() => server.stop());
}

/** What is waited for gets the machine meanwhile, rather than the asking. */
const ASK_AGAIN_MS = 15;

/** Asks again until an answer holds; what never holds fails by the test's own time limit. */
export async function until<Answer>(ask: () => Promise<Answer>, holds: (answer: Answer) => boolean): Promise<Answer> {
  for (;;) {
    const answer = await ask();
    if (holds(answer)) return answer;
    await new Promise((resolve) => setTimeout(resolve, ASK_AGAIN_MS));
  }
}
