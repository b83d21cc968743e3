import 'reflect-metadata';
import { randomBytes } from 'node:crypto';
import { counted } from '@haycart/core';
import { readSecretKeys, writeKeys } from '../platform/auth/secret-keys';
import { SecretBox } from '../platform/auth/secret-box';
import { ConfigError } from '../platform/config';
import { SealedSecrets } from '../sealed-secrets';
import { runCommand } from './run-command';

/**
 * Makes a new key and seals all secrets with it: `rotate-key.js`. The key before stays in the file, so that a server that
 * runs opens what it finds until it is started again; `--forget` leaves only the new one.
 */
void runCommand('The key could not be changed', async (database) => {
  const file = process.env.HAYCART_KEY_FILE;
  if (!file || process.env.HAYCART_SECRET_KEY)
    throw new ConfigError('The key is in HAYCART_SECRET_KEY: put a new one before it there, divided by a comma.');
  const forget = process.argv.includes('--forget');
  const before = readSecretKeys(undefined, file);
  const keys = forget ? before : [randomBytes(32), ...before.slice(0, 1)];
  writeKeys(file, keys);
  const sealed = await new SealedSecrets(database, new SecretBox({ secretKeys: keys })).sealAll();
  if (forget) writeKeys(file, keys.slice(0, 1));
  return forget
    ? 'The old key is forgotten.'
    : `${counted(sealed, 'secret')} sealed anew. Start Hay Cart again, then run this with --forget.`;
});
