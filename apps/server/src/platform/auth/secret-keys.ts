import { randomBytes } from 'node:crypto';
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';

const KEY_BYTES = 32;

/**
 * Returns the keys that seal secrets at rest, the one that seals first: from a text that lists them in base64, or from a file
 * with one a line, which is made with a new key where there is none. None where neither is named.
 *
 * @throws Error when a key does not have 32 bytes.
 */
export function readSecretKeys(text: string | undefined, file: string | undefined): Buffer[] {
  if (text) return keysIn(text, 'HAYCART_SECRET_KEY');
  if (!file) return [];
  if (!existsSync(file)) writeKeys(file, [randomBytes(KEY_BYTES)]);
  return keysIn(readFileSync(file, 'utf8'), file);
}

/** Writes the file anew, for its owner alone, whole or not at all. */
export function writeKeys(file: string, keys: readonly Buffer[]): void {
  const aside = `${file}.${process.pid}`;
  writeFileSync(aside, `${keys.map((key) => key.toString('base64')).join('\n')}\n`, { mode: 0o600 });
  renameSync(aside, file);
}

function keysIn(text: string, from: string): Buffer[] {
  const keys = text
    .split(/[\s,]+/)
    .filter(Boolean)
    .map((one) => Buffer.from(one, 'base64'));
  if (!keys.length || keys.some(({ length }) => length !== KEY_BYTES))
    throw new Error(`${from} takes keys of ${KEY_BYTES} bytes in base64, such as openssl rand -base64 32 makes.`);
  return keys;
}
