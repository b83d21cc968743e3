import { createCipheriv, createDecipheriv, createHash, createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import type { Config } from '../config';
import { CONFIG } from '../tokens';

const MARK = 'sealed1';
const NONCE_BYTES = 12;
const TAG_BYTES = 16;

/**
 * Seals secrets that must be read again (AES-256-GCM, NIST SP 800-38D), so that the database gives nobody a secret. What was
 * kept before there was a key is given back as it is.
 */
@Injectable()
export class SecretBox {
  readonly #keys: { id: string; key: Buffer }[];

  constructor(@Inject(CONFIG) { secretKeys }: Pick<Config, 'secretKeys'>) {
    this.#keys = secretKeys.map((key) => ({ id: idOf(key), key }));
  }

  /** Whether a text is sealed by the key that seals now. */
  isCurrent(kept: string): boolean {
    const [current] = this.#keys;
    return !current || kept.startsWith(`${MARK}.${current.id}.`);
  }

  /** Seals a secret; without a key it stays as it is. `what` is bound to it: sealed for one thing, it opens for no other. */
  seal(secret: string, what: string): string {
    const [current] = this.#keys;
    if (!current) return secret;
    const nonce = randomBytes(NONCE_BYTES);
    const cipher = createCipheriv('aes-256-gcm', current.key, nonce).setAAD(Buffer.from(what));
    const sealed = Buffer.concat([nonce, cipher.update(secret, 'utf8'), cipher.final(), cipher.getAuthTag()]);
    return `${MARK}.${current.id}.${sealed.toString('base64url')}`;
  }

  /** @throws Error when the key is not there, or the text was changed. */
  open(kept: string, what: string): string {
    const [mark, id, text] = kept.split('.');
    if (mark !== MARK || text === undefined) return kept;
    const known = this.#keys.find((one) => one.id === id);
    if (!known) throw new Error(`The key “${id}” that sealed a secret is not among the keys of this server.`);
    const bytes = Buffer.from(text, 'base64url');
    const decipher = createDecipheriv('aes-256-gcm', known.key, bytes.subarray(0, NONCE_BYTES), {
      authTagLength: TAG_BYTES,
    })
      .setAAD(Buffer.from(what))
      .setAuthTag(bytes.subarray(-TAG_BYTES));
    return Buffer.concat([decipher.update(bytes.subarray(NONCE_BYTES, -TAG_BYTES)), decipher.final()]).toString('utf8');
  }

  /** A mark by which what this server gave out is known again (HMAC with SHA-256); `what` is bound to it. */
  mark(text: string, what: string): Buffer {
    return markBy(this.#keys[0]?.key, text, what);
  }

  /** Whether a mark, or the beginning of one, is what any key of this server gave. */
  isMarked(text: string, mark: Buffer, what: string): boolean {
    const keys = this.#keys.length ? this.#keys.map(({ key }) => key) : [undefined];
    return (
      mark.length > 0 && keys.some((key) => timingSafeEqual(markBy(key, text, what).subarray(0, mark.length), mark))
    );
  }
}

function markBy(key: Buffer | undefined, text: string, what: string): Buffer {
  return createHmac('sha256', key ?? '')
    .update(`${what}\n${text}`)
    .digest();
}

function idOf(key: Buffer): string {
  return createHash('sha256').update(key).digest('base64url').slice(0, 8);
}
