import 'reflect-metadata';
import { LIMITS } from '@haycart/core';
import { TokensService } from '../workspaces/tokens.service';
import { optionOf, runCommand } from './run-command';

/** Prints one new API token of a workspace: `token.js --workspace KEY`. */
void runCommand('No token could be made', async (database) => {
  const key = optionOf('--workspace', 'Say which workspace: ./haycart token --workspace KEY');
  const token = await new TokensService(database).makeFor(key, 'from the command line');
  process.stderr.write(
    `This token ends in ${LIMITS.commandToken.most} hours. Lasting ones are made in Set up, Tokens.\n`,
  );
  return token;
});
