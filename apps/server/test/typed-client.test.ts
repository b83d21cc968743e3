import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { expect, test } from '@jest/globals';
import createClient, { type Client } from 'openapi-fetch';
import openapiTS, { astToString } from 'openapi-typescript';
import ts from 'typescript';
import { eachInWorkspace, type TestServer, type TestWorkspace } from './support/test-server';

/** A script as somebody would write it who has nothing but the description of the API. */
const SCRIPT = `
import type { Client } from 'openapi-fetch';
import type { paths } from './api';

export async function drive(api: Client<paths>): Promise<unknown> {
  const made = await api.POST('/api/v1/intakes', { body: { kind: 'endpoint', name: 'By a client' } });
  if (!made.data) throw new Error(made.error.detail);
  const key: string = made.data.key;
  const list = await api.GET('/api/v1/submissions', { params: { query: { limit: '1' } } });
  const outcomes = list.data?.items.flatMap(({ runs }) => runs.map(({ outcome }) => outcome));
  const renamed = await api.PATCH('/api/v1/intakes/{id}', { params: { path: { id: made.data.id } }, body: { name: 'Renamed' } });
  const refused = await api.GET('/api/v1/routes/{id}', { params: { path: { id: 'nothing' } } });
  return { key, outcomes, name: renamed.data?.name, refused: refused.error?.code };
}
`;
const WRONG = SCRIPT.replace('made.data.key', 'made.data.colour');

const folder = fileURLToPath(new URL('../.tsc/typed-client/', import.meta.url));
let server: TestServer;
let workspace: TestWorkspace;

eachInWorkspace((made) => ({ server, workspace } = made));

async function describeClient(): Promise<void> {
  const document = (await (await fetch(`${server.base}/api/openapi.json`)).json()) as object;
  mkdirSync(folder, { recursive: true });
  writeFileSync(join(folder, 'api.d.ts'), astToString(await openapiTS(document as Parameters<typeof openapiTS>[0])));
}

/** What a compiler finds wrong with a script, in its words. */
function problemsOf(name: string, text: string): string[] {
  const path = join(folder, name);
  writeFileSync(path, text);
  const program = ts.createProgram([path], {
    strict: true,
    noEmit: true,
    skipLibCheck: true,
    target: ts.ScriptTarget.ES2022,
    module: ts.ModuleKind.ESNext,
    moduleResolution: ts.ModuleResolutionKind.Bundler,
    lib: ['lib.es2022.d.ts', 'lib.dom.d.ts'],
    types: [],
  });
  return ts.getPreEmitDiagnostics(program).map(({ messageText }) => ts.flattenDiagnosticMessageText(messageText, ' '));
}

test('a client made of the description compiles, is typed, and does what it says', async () => {
  await describeClient();
  expect(problemsOf('drive.ts', SCRIPT)).toEqual([]);
  expect(problemsOf('wrong.ts', WRONG)).toEqual([expect.stringContaining("'colour' does not exist")]);

  await workspace.publish();
  await workspace.submit({ name: 'Ada Weir', email: 'ada@weir.example' });
  await workspace.handled();
  const script = join(folder, 'drive.mjs');
  writeFileSync(script, ts.transpile(SCRIPT, { target: ts.ScriptTarget.ES2022, module: ts.ModuleKind.ESNext }));
  const { drive } = (await import(pathToFileURL(script).href)) as { drive: (api: Client<object>) => unknown };
  const api = createClient<object>({ baseUrl: server.base, headers: { authorization: `Bearer ${workspace.token}` } });
  expect(await drive(api)).toEqual({
    key: expect.any(String),
    outcomes: ['written'],
    name: 'Renamed',
    refused: 'not-found',
  });
});
