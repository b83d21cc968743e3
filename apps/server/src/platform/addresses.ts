import type { RecordKind } from '@haycart/core';
import type { Config } from './config';

type Where = Pick<Config, 'publicUrl' | 'host' | 'port'>;

const PLACES: Record<RecordKind, string> = { contact: 'contacts', company: 'companies', lead: 'leads', deal: 'deals' };

/** The address that people use; without one, where the server listens. It ends without a slash. */
export function baseAddress({ publicUrl, host, port }: Where): string {
  return publicUrl?.replace(/\/$/, '') ?? `http://${host}:${port}`;
}

/** Where a contact says what they agree to, by a link of their own. */
export function consentAt(where: Where, secret: string): string {
  return `${baseAddress(where)}/consent/${secret}`;
}

/** The address by which somebody answers who was asked by mail. */
export function askedAt(where: Where, secret: string): string {
  return `${baseAddress(where)}/ask/${secret}`;
}

/** The address of a record’s page, for links in what is sent. */
export function recordAddress(where: Where, { kind, id }: { kind: RecordKind; id: string }): string {
  return `${baseAddress(where)}/records/${PLACES[kind]}/${id}`;
}
