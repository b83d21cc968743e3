import { baseAddress } from '../platform/addresses';
import 'reflect-metadata';
import { ConfigError } from '../platform/config';
import { PersonLinks } from '../workspaces/person-links.service';
import { SessionsService } from '../workspaces/sessions.service';
import { runCommand } from './run-command';

/** Prints a link by which somebody sets a new password: `reset-password.js EMAIL`, in every workspace they are in. */
void runCommand('No link could be made', async (database, config) => {
  const email = process.argv[2];
  if (!email) throw new ConfigError('Say whose: ./haycart reset-password EMAIL');
  const people = await database.gate<{ workspace_id: string; id: string }>('people_called', email);
  if (!people.length) throw new ConfigError(`There is no active person with the e-mail ${email}.`);
  const links = new PersonLinks(database, new SessionsService());
  const base = baseAddress(config);
  const made = await Promise.all(
    people.map(({ workspace_id: workspaceId, id }) => database.inWorkspace(workspaceId, (tx) => links.make(tx, id))),
  );
  return made.map(({ address, hours }) => `${base}${address}  (once, within ${hours} hours)`).join('\n');
});
