import type { Permission } from '@haycart/api';
import type { Caller } from '../platform/auth/caller';
import { ProblemError } from '../platform/errors/problem-error';

/** Who may do what. Everybody who is signed in may do all for now; roles come in here. */
export function isGranted(_permission: Permission, _caller: Caller): boolean {
  return true;
}

/** @throws ProblemError 403 where somebody may not do what a command does. */
export function refuseWithout(permission: Permission, caller: Caller): void {
  if (!isGranted(permission, caller))
    throw new ProblemError('not-allowed', 'You may not do this. Ask somebody who may change what you may do.');
}
