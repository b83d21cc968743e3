import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { NestFastifyApplication } from '@nestjs/platform-fastify';
import { DocumentBuilder, SwaggerModule, type OpenAPIObject } from '@nestjs/swagger';
import { describeCheckedProperties } from './openapi-properties';

type SchemaObject = Record<string, unknown>;
type Operation = NonNullable<OpenAPIObject['paths'][string]['get']> & { 'x-public'?: boolean };

/** What every refusal answers (RFC 9457). */
const PROBLEM = {
  type: 'object',
  required: ['type', 'title', 'status', 'code', 'detail'],
  properties: {
    type: { type: 'string' },
    title: { type: 'string' },
    status: { type: 'integer' },
    code: { type: 'string' },
    detail: { type: 'string', description: 'What is wrong and what to do, in a sentence.' },
    errors: {
      type: 'array',
      items: {
        type: 'object',
        required: ['at', 'code', 'message'],
        properties: {
          at: { type: 'string', description: 'Where, as a JSON Pointer (RFC 6901).' },
          code: { type: 'string' },
          message: { type: 'string' },
        },
      },
    },
  },
};

/** What calls answer, by their operation ids, as the build reads it from their types; see `scripts/api-answers.mjs`. */
interface ApiAnswers {
  operations: Record<string, SchemaObject>;
  schemas: Record<string, SchemaObject>;
}

/** @param folder The folder of what is built. */
export function readApiAnswers(folder: string): ApiAnswers {
  return JSON.parse(readFileSync(join(folder, 'api-answers.json'), 'utf8')) as ApiAnswers;
}

/** Describes the API at `/api/openapi.json` (OpenAPI 3.1) and as pages at `/api/docs`. */
export function describeApi(app: NestFastifyApplication, { operations, schemas }: ApiAnswers): void {
  describeCheckedProperties();
  const document = SwaggerModule.createDocument(
    app,
    new DocumentBuilder()
      .setTitle('Hay Cart')
      .setDescription('Form submissions into sales records.')
      .setVersion('1')
      .addBearerAuth()
      .addCookieAuth('haycart_session')
      .build(),
  );
  document.components = {
    ...document.components,
    schemas: { ...schemas, ...document.components?.schemas, Problem: PROBLEM },
  };
  for (const operation of operationsOf(document)) complete(operation, operations[operation.operationId ?? '']);
  SwaggerModule.setup('api/docs', app, { ...document, openapi: '3.1.0' }, { jsonDocumentUrl: 'api/openapi.json' });
}

function operationsOf({ paths }: OpenAPIObject): Operation[] {
  return Object.values(paths).flatMap(({ get, post, put, patch, delete: remove }) =>
    [get, post, put, patch, remove].filter((one) => one !== undefined),
  );
}

/** Says of a call who may make it, what it answers, and what when it refuses. */
function complete(operation: Operation, answer: SchemaObject | undefined): void {
  const done = Object.entries(operation.responses).find(([status]) => status.startsWith('2'))?.[1];
  if (done && answer) Object.assign(done, { content: { 'application/json': { schema: answer } } });
  operation.security = operation['x-public'] ? [] : [{ bearer: [] }, { cookie: [] }];
  operation.responses.default = {
    description: 'Refused: a problem with a sentence.',
    content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
  };
}
