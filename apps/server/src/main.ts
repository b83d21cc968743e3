import 'reflect-metadata';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Logger } from '@nestjs/common';
import { LIMITS } from '@haycart/core';
import { ConfigError, readConfig } from './platform/config';
import { databaseFailure } from './platform/database/failure';
import { prepareDatabase } from './platform/database/migrate';
import { SealedSecrets } from './sealed-secrets';
import { createServerApp } from './server';
import { stopServer } from './stop-server';

const here = dirname(fileURLToPath(import.meta.url));
const log = new Logger('start');

// A full disk or a closed pipe loses what is said there, and ends nothing.
process.stdout.on('error', () => {});
process.stderr.on('error', () => {});
// Nobody waited for it, so nothing is half done: it is noted, and the server goes on.
process.on('unhandledRejection', (err) => log.error({ err }, 'A failure that nobody handled.'));

/** Starts the server, or says in one line why it cannot. */
async function main(): Promise<void> {
  const given = readConfig({ HAYCART_WEB_FOLDER: join(here, '../../web/dist'), ...process.env });
  const config = { ...given, databaseUrl: await prepareDatabase(given, join(here, '../drizzle')) };
  const app = await createServerApp(config, join(here, 'public'));
  await app.get(SealedSecrets).sealAll();
  let stopping = false;
  // Ctrl-C in a terminal reaches this process from the terminal and from the command that started it.
  const stop = (code: number) => {
    if (stopping) return;
    stopping = true;
    setTimeout(() => process.exit(code), LIMITS.stop.most * 1_000);
    stopServer(app)
      .catch((err: unknown) => log.error({ err }))
      .finally(() => process.exit(code));
  };
  process.on('SIGINT', () => stop(0));
  process.on('SIGTERM', () => stop(0));
  process.on('uncaughtException', (err) => {
    log.error({ err }, 'An error that nobody handled; the server stops.');
    stop(1);
  });
  await app.listen(config.port, config.host);
  process.stdout.write(`{"level":30,"area":"start","msg":"Listening on http://${config.host}:${config.port}"}\n`);
}

main().catch((cause: NodeJS.ErrnoException & { port?: number }) => {
  process.stderr.write(`Hay Cart cannot start: ${whyNot(cause)}\n`);
  process.exit(1);
});

function whyNot(cause: NodeJS.ErrnoException & { port?: number }): string {
  if (cause instanceof ConfigError) return cause.message;
  if (cause.code === 'EADDRINUSE')
    return `port ${cause.port} is taken, perhaps by another Hay Cart. Stop that one, or choose another port with HAYCART_PORT.`;
  if (cause.code === 'EACCES' || cause.code === 'EADDRNOTAVAIL')
    return `it may not listen there (${cause.code}). Change HAYCART_HOST or HAYCART_PORT.`;
  if (databaseFailure(cause) === 'unreachable') return 'the database at DATABASE_URL cannot be reached.';
  return cause.message;
}
