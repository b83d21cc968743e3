import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { Logger } from '@nestjs/common';
import { ConfigError, readConfig, type Config } from '../platform/config';
import { Database } from '../platform/database/database';
import { prepareDatabase } from '../platform/database/migrate';
import { ProblemError } from '../platform/errors/problem-error';

/** Beside the bundle; what commands share is in a folder of its own there. */
const MIGRATIONS = ['../drizzle/', '../../drizzle/']
  .map((folder) => fileURLToPath(new URL(folder, import.meta.url)))
  .find(existsSync)!;

/** Does one thing with the database, and prints what it returns; or says in one line why not, and ends with 1. */
export async function runCommand(
  failed: string,
  work: (database: Database, config: Config) => Promise<string>,
): Promise<void> {
  // What is printed is for scripts to take up: nothing else goes there.
  Logger.overrideLogger(false);
  try {
    const config = readConfig(process.env);
    const database = new Database(await prepareDatabase(config, MIGRATIONS), 2);
    try {
      process.stdout.write(`${await work(database, config)}\n`);
    } finally {
      await database.onApplicationShutdown();
    }
  } catch (cause) {
    const known = cause instanceof ConfigError || cause instanceof ProblemError;
    process.stderr.write(`${known ? cause.message : `${failed}: ${(cause as Error).message}`}\n`);
    process.exitCode = 1;
  }
}

/** The value behind an option. @throws ConfigError with the usage when it is missing. */
export function optionOf(name: string, usage: string): string {
  const at = process.argv.indexOf(name);
  const value = at === -1 ? undefined : process.argv[at + 1];
  if (!value) throw new ConfigError(usage);
  return value;
}
