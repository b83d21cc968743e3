import type { IncomingMessage, RequestListener } from 'node:http';
import { constants } from 'node:zlib';
import { readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import compress, { type FastifyCompressOptions } from '@fastify/compress';
import cookie from '@fastify/cookie';
import multipart from '@fastify/multipart';
import fastifyStatic from '@fastify/static';
import { NestFactory } from '@nestjs/core';
import { FastifyAdapter, type NestFastifyApplication } from '@nestjs/platform-fastify';
import { AppModule } from './app.module';
import { BeforeFramework } from './platform/before-framework';
import { compileTrust, isLoopback } from './platform/client-address';
import type { Config } from './platform/config';
import { Doors, isOfApplication } from './platform/doors';
import { isDeeper, LIMITS } from '@haycart/core';
import { createHttpServer } from './platform/http-server';
import { ProblemError } from './platform/errors/problem-error';
import { PinoLogger } from './platform/logging';

const APPLICATION_HEADERS = {
  'content-security-policy':
    "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: https: http:; connect-src 'self'; frame-src 'self'; frame-ancestors 'none'; base-uri 'none'; form-action 'self'",
  'referrer-policy': 'same-origin',
  'x-content-type-options': 'nosniff',
  'permissions-policy': 'camera=(), geolocation=(), microphone=(), payment=(), usb=()',
};
/** Keeps the application apart from other sites' pages. Forms are there to be embedded, and have an origin of their own. */
const APART_HEADERS = {
  'cross-origin-resource-policy': 'same-origin',
  'cross-origin-opener-policy': 'same-origin',
};
/** How hard what is worth it is compressed: a page is waited for. */
const COMPRESSED: FastifyCompressOptions = {
  threshold: 1_024,
  encodings: ['br', 'gzip', 'identity'],
  brotliOptions: { params: { [constants.BROTLI_PARAM_QUALITY]: 4 } },
};
const HSTS = { 'strict-transport-security': 'max-age=31536000' };

/** Puts a server together, ready to listen. Some requests are answered before the framework; see `BeforeFramework`. */
export async function createServerApp(config: Config, publicFolder: string): Promise<NestFastifyApplication> {
  let before: BeforeFramework | null = null;
  const trust = compileTrust(config.trustedProxies);
  const adapter = new FastifyAdapter({
    bodyLimit: LIMITS.apiBody.most,
    trustProxy: trust,
    rewriteUrl: ({ url = '/', headers }: IncomingMessage) => before?.addressFor(url, headers.host) ?? url,
    serverFactory: (framework: RequestListener) =>
      createHttpServer((request, response) => {
        const early = before?.handlerOf(request);
        if (early) void early.handle(request, response);
        else framework(request, response);
      }, trust),
  });
  const app = await NestFactory.create<NestFastifyApplication>(
    await AppModule.with(config, readFileSync(join(publicFolder, 'form.css'), 'utf8')),
    adapter,
    {
      logger: new PinoLogger(config),
      abortOnError: false,
      forceCloseConnections: true,
    },
  );
  before = app.get(BeforeFramework);
  const fastify = adapter.getInstance();
  await app.register(cookie);
  await app.register(multipart);
  await app.register(compress, COMPRESSED);
  const secure = app.get(Doors).secure;
  fastify.addHook('onRequest', (request, reply, done) => {
    void reply.headers(secure ? { ...APPLICATION_HEADERS, ...HSTS } : APPLICATION_HEADERS);
    if (isOfApplication(request.url)) void reply.headers(APART_HEADERS);
    if (request.url.startsWith('/api/')) void reply.header('cache-control', 'no-store');
    // The description of the API says what there is to attack.
    const forDocs = /^\/api\/(docs|openapi\.json)/.test(request.url);
    const open = config.open.includes('docs') || isLoopback(request.ip) || request.headers.authorization;
    if (forDocs && !open)
      return done(
        new ProblemError('not-allowed', 'The API is described to this machine and to callers with a token alone.'),
      );
    done();
  });
  // A download goes as it is, with its length: a failure half-way must not look like its end.
  fastify.addHook('onSend', (request, reply, payload, done) => {
    if (/^attachment/.test(String(reply.getHeader('content-disposition')))) request.headers['x-no-compression'] = 'yes';
    done(null, payload);
  });
  fastify.addHook('preValidation', (request, _reply, done) => done(bodyProblem(request.body)));
  if (config.role !== 'route') await serveForms(app, publicFolder);
  if (config.role === 'all' || config.role === 'web') {
    const { describeApi, readApiAnswers } = await import('./openapi');
    describeApi(app, readApiAnswers(dirname(publicFolder)));
    if (config.webFolder) await serveWeb(app, config.webFolder);
  }
  return app;
}

/** Why a body sent to the API is not looked at any further, before anything that walks or checks it. */
function bodyProblem(body: unknown): ProblemError | undefined {
  if (typeof body !== 'object' || body === null) return undefined;
  if (isDeeper(body, LIMITS.jsonDepth.most))
    return new ProblemError('unreadable', `The body nests more than ${LIMITS.jsonDepth.most} levels deep.`);
  if (!Array.isArray(body) && Object.keys(body).length > LIMITS.apiProperties.most)
    return new ProblemError('refused', `The body has more than ${LIMITS.apiProperties.most} properties.`);
  return undefined;
}

/** The scripts, styles and letters of hosted forms. */
async function serveForms(app: NestFastifyApplication, folder: string): Promise<void> {
  await app.register(fastifyStatic, {
    root: folder,
    prefix: '/forms/',
    decorateReply: true,
    cacheControl: true,
    maxAge: '1h',
    // Pages of forms have an origin of their own, and fonts are held against it.
    setHeaders: (reply) =>
      void reply.headers({ 'access-control-allow-origin': '*', 'cross-origin-resource-policy': 'cross-origin' }),
  });
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
