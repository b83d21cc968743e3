import 'reflect-metadata';
import { ConfigError, readConfig } from './platform/config';
import { Database } from './platform/database/database';
import { ProblemError } from './platform/errors/problem-error';
import { PeopleService } from './workspaces/people.service';

/** Prints one new API token of a workspace: `token.js --workspace KEY`. */
async function main(): Promise<void> {
  const at = process.argv.indexOf('--workspace');
  const key = at === -1 ? undefined : process.argv[at + 1];
  if (!key) throw new ConfigError('Say which workspace: ./haycart token --workspace KEY');
  const database = new Database(readConfig(process.env).databaseUrl, 1);
  try {
    process.stdout.write(`${await new PeopleService(database).addToken(key, 'from the command line')}\n`);
  } finally {
    await database.onModuleDestroy();
  }
}

main().catch((cause: Error) => {
  const known = cause instanceof ConfigError || cause instanceof ProblemError;
  process.stderr.write(`${known ? cause.message : `No token could be made: ${cause.message}`}\n`);
  process.exit(1);
});
