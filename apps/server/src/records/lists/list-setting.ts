import type { Destination } from '@haycart/core';
import type { ListSetting } from './record-lists.service';

/** What reading a list takes: the destination, who looks, and the moment. */
export function listSetting(destination: Destination, me: string | undefined, now = new Date()): ListSetting {
  const { defaultCurrency, teams = {} } = destination;
  return { destination, condition: { now: now.toISOString(), defaultCurrency, me, teams } };
}
