import { createServer, type RequestListener } from 'node:http';
import { join } from 'node:path';
import cookie from '@fastify/cookie';
import fastifyStatic from '@fastify/static';
import { NestFactory } from '@nestjs/core';
import { FastifyAdapter, type NestFastifyApplication } from '@nestjs/platform-fastify';
import { DocumentBuilder, SwaggerModule } from '@nestjs/swagger';
import { AppModule } from './app.module';
import type { Config } from './platform/config';
import { PinoLogger } from './platform/logging';
import { AcceptHandler } from './submissions/accept/accept.handler';

const APPLICATION_HEADERS = {
  'content-security-policy':
    "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; connect-src 'self'; frame-src 'self'; frame-ancestors 'none'; base-uri 'none'; form-action 'self'",
  'referrer-policy': 'same-origin',
  'x-content-type-options': 'nosniff',
};

/** Puts a server together, ready to listen. The accept handler stands before the framework; see there. */
export async function createServerApp(config: Config, publicFolder: string): Promise<NestFastifyApplication> {
  let accept: AcceptHandler | null = null;
  const adapter = new FastifyAdapter({
    bodyLimit: 2 * 1_048_576,
    trustProxy: false,
    serverFactory: (framework: RequestListener) =>
      createServer((request, response) => {
        if (accept?.takes(request)) void accept.handle(request, response);
        else framework(request, response);
      }),
  });
  const app = await NestFactory.create<NestFastifyApplication>(AppModule.with(config), adapter, {
    logger: new PinoLogger(config),
    abortOnError: false,
    forceCloseConnections: true,
  });
  accept = app.get(AcceptHandler);
  const fastify = adapter.getInstance();
  await app.register(cookie);
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
