import 'reflect-metadata';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { ConfigError, readConfig } from './platform/config';
import { databaseFailure } from './platform/database/failure';
import { migrateDatabase } from './platform/database/migrate';
import { createServerApp } from './server';

const here = dirname(fileURLToPath(import.meta.url));

/** Starts the server, or says in one line why it cannot. */
async function main(): Promise<void> {
  const config = readConfig({ HAYCART_WEB_FOLDER: join(here, '../../web/dist'), ...process.env });
  await migrateDatabase(config.databaseUrl, join(here, '../drizzle'));
  const app = await createServerApp(config, join(here, 'public'));
  let stopping: Promise<void> | null = null;
  // Ctrl-C in a terminal reaches this process from the terminal and from the command that started it.
  const stop = () => void (stopping ??= app.close().then(() => process.exit(0)));
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
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
