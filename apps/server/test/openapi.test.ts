import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { PERMISSIONS } from '@haycart/api';
import { Validator } from '@seriousme/openapi-schema-validator';
import { freePort, killProcesses, startProcess } from './support/server-process';
import { newDatabase } from './support/test-server';

interface Operation {
  at: string;
  summary?: string;
  security?: object[];
  responses: Record<string, { content?: Record<string, { schema: object }> }>;
  'x-permission'?: string;
  'x-public'?: boolean;
}
interface Document {
  openapi: string;
  paths: Record<string, Record<string, Omit<Operation, 'at'>>>;
  components: { schemas: Record<string, object> };
}

let document: Document;
let operations: Operation[];

/** Of the server as it is built: its bundler may give two classes of one name other names. */
beforeAll(async () => {
  const port = await freePort();
  await startProcess(await newDatabase(), port);
  document = (await (await fetch(`http://127.0.0.1:${port}/api/openapi.json`)).json()) as Document;
  operations = Object.entries(document.paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, operation]) => ({ at: `${method} ${path}`, ...operation })),
  );
});
afterAll(() => killProcesses());

test('the description of the API is valid OpenAPI', async () => {
  const { valid, errors } = await new Validator().validate(
    structuredClone(document) as unknown as Record<string, unknown>,
  );
  expect(errors).toBeUndefined();
  expect(valid).toBe(true);
  expect(document.openapi).toBe('3.1.0');
});

test('each shape in it is called as one would call it', () =>
  expect(Object.keys(document.components.schemas).filter((name) => !/^[A-Z][A-Za-z]+$/.test(name))).toEqual([]));

test('each call says what it does, what it needs and how one signs in for it', () => {
  expect(operations.length).toBeGreaterThan(150);
  const of = (holds: (operation: Operation) => boolean) => operations.filter((one) => !holds(one)).map(({ at }) => at);
  expect(of(({ summary }) => /^[A-Z][^.]{3,100}$/.test(summary ?? ''))).toEqual([]);
  const permissions = new Set<string | undefined>(PERMISSIONS);
  expect(of((one) => one['x-public'] === true || permissions.has(one['x-permission']))).toEqual([]);
  expect(of(({ security, ...one }) => security?.length === (one['x-public'] ? 0 : 2))).toEqual([]);
});

/** What answers with a file or a page, or with events as they happen. */
const NO_JSON =
  /^get \/(healthz|metrics|readyz|embed|f\/|api\/route\.schema|\{path\}|$|api\/v1\/(.*\/export|.*[/-]files\/|.*refused\.csv|events|finishers))/;

/** What is begun and answers nothing. */
const ACCEPTED = new Set(['post /api/v1/runs/{id}/run-again', 'post /api/v1/sheets/files/{id}/take-back']);

test('each call says what it answers, in the shapes that the web application reads', () => {
  const answersJson = operations.filter(
    ({ at, responses }) => !NO_JSON.test(at) && !ACCEPTED.has(at) && !responses['204'],
  );
  const silent = answersJson.filter(({ responses }) =>
    Object.entries(responses).some(
      ([status, { content }]) => status !== 'default' && !content?.['application/json']?.schema,
    ),
  );
  expect(silent.map(({ at }) => at)).toEqual([]);
  expect(document.components.schemas.RouteShape).toMatchObject({
    required: expect.arrayContaining(['draft', 'words']),
  });
});
