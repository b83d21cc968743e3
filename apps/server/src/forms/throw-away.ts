import { createRequire } from 'node:module';

const require = createRequire(import.meta.url);
const THROWN_AWAY: ReadonlySet<string> = new Set(require('disposable-email-domains') as string[]);
const WITH_ALL_BENEATH: ReadonlySet<string> = new Set(require('disposable-email-domains/wildcard.json') as string[]);

/** Whether mail to a domain goes to a service that throws it away after minutes: nobody reads it later. */
export function isThrowAwayDomain(domain: string): boolean {
  const name = domain.toLowerCase();
  const parts = name.split('.');
  return THROWN_AWAY.has(name) || parts.some((_, at) => WITH_ALL_BENEATH.has(parts.slice(at).join('.')));
}
