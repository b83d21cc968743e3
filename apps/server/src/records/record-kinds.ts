import type { RecordKind } from '@haycart/core';
import { ProblemError } from '../platform/errors/problem-error';

const KINDS: Record<string, RecordKind> = { contacts: 'contact', companies: 'company', leads: 'lead', deals: 'deal' };

/** The kind that an address names by its plural. */
export function kindFrom(plural: string): RecordKind {
  const kind = Object.hasOwn(KINDS, plural) ? KINDS[plural] : undefined;
  if (!kind) throw new ProblemError('not-found', 'There is nothing at this address.');
  return kind;
}
