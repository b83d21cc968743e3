import { createServer, type IncomingMessage, type RequestListener } from 'node:http';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import cookie from '@fastify/cookie';
import multipart from '@fastify/multipart';
import fastifyStatic from '@fastify/static';
import { NestFactory } from '@nestjs/core';
import { FastifyAdapter, type NestFastifyApplication } from '@nestjs/platform-fastify';
import { DocumentBuilder, SwaggerModule } from '@nestjs/swagger';
import { AppModule } from './app.module';
import type { Config } from './platform/config';
import { FormHosts } from './forms/form-hosts.service';
import { PinoLogger } from './platform/logging';
import { AcceptHandler } from './submissions/accept/accept.handler';

const APPLICATION_HEADERS = {
  'content-security-policy':
    "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: https: http:; connect-src 'self'; frame-src 'self'; frame-ancestors 'none'; base-uri 'none'; form-action 'self'",
  'referrer-policy': 'same-origin',
  'x-content-type-options': 'nosniff',
};

/** Puts a server together, ready to listen. The accept handler stands before the framework; see there. */
export async function createServerApp(config: Config, publicFolder: string): Promise<NestFastifyApplication> {
  let accept: AcceptHandler | null = null;
  let hosts: FormHosts | null = null;
  const adapter = new FastifyAdapter({
    bodyLimit: 2 * 1_048_576,
    trustProxy: false,
    rewriteUrl: ({ url = '/', headers }: IncomingMessage) => hosts?.addressFor(url, headers.host) ?? url,
    serverFactory: (framework: RequestListener) =>
      createServer((request, response) => {
        if (accept?.takes(request)) void accept.handle(request, response);
        else framework(request, response);
      }),
  });
  const app = await NestFactory.create<NestFastifyApplication>(
    AppModule.with(config, readFileSync(join(publicFolder, 'form.css'), 'utf8')),
    adapter,
    {
      logger: new PinoLogger(config),
      abortOnError: false,
      forceCloseConnections: true,
    },
  );
  accept = app.get(AcceptHandler);
  hosts = app.get(FormHosts);
  const fastify = adapter.getInstance();
  await app.register(cookie);
  await app.register(multipart);
  fastify.addHook('onRequest', (_request, reply, done) => {
    void reply.headers(APPLICATION_HEADERS);
    done();
  });
  await app.register(fastifyStatic, {
    root: publicFolder,
    prefix: '/forms/',
    decorateReply: true,
    cacheControl: true,
    maxAge: '1h',
    // Pages of forms have an origin of their own, and fonts are held against it.
    setHeaders: (reply) => void reply.header('access-control-allow-origin', '*'),
  });
  describe(app);
  if (config.webFolder && (config.role === 'all' || config.role === 'web')) await serveWeb(app, config.webFolder);
  return app;
}

function describe(app: NestFastifyApplication): void {
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
  SwaggerModule.setup('api/docs', app, { ...document, openapi: '3.1.0' }, { jsonDocumentUrl: 'api/openapi.json' });
}

/** The web application's files; its page is the web page controller's. */
async function serveWeb(app: NestFastifyApplication, folder: string): Promise<void> {
  await app.register(fastifyStatic, {
    root: join(folder, 'assets'),
    prefix: '/assets/',
    decorateReply: false,
    immutable: true,
    maxAge: '365d',
  });
}
