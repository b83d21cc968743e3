import { createHash, randomBytes } from 'node:crypto';

/** A new secret of 256 bits for a session or token, safe in addresses and cookies. */
export function newSecret(): string {
  return randomBytes(32).toString('base64url');
}

/** How a secret is stored. It is random, so a fast hash is enough; passwords are hashed with argon2id instead. */
export function secretHash(secret: string): string {
  return createHash('sha256').update(secret).digest('base64url');
}
