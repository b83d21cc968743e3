import { sourceOf, type Destination, type Device, type FormDid, type Visit } from '@haycart/core';
import type { Services } from '@haycart/server/seeding';
import type { Random } from '../random';

/** One submission of a form, as far as it tells what was seen before it. */
export interface Sent {
  intakeId: string;
  /** Its key. */
  intake: string;
  at: Date;
  visit: Visit;
}

/** Where visitors leave, by the key of the form; a question is named more than once where more of them do. */
const STOPS: Record<string, string[]> = {
  survey: ['phone', 'organisation', 'budget', 'budget', 'message', 'growing_for'],
  pricelist: ['email', 'organisation', 'organisation', 'consent'],
};
const DEVICES: Device[] = ['desktop', 'desktop', 'phone', 'phone', 'tablet'];

/** Lets people look at forms, begin, leave and send: for each that was sent, some who did not get so far. */
export async function countVisitors(
  services: Services,
  workspaceId: string,
  random: Random,
  sent: readonly Sent[],
  destination: Destination,
): Promise<void> {
  const days = new Map<string, Parameters<Services['formCounts']['add']>[1][number]>();
  for (const { intakeId, intake, at, visit } of sent) {
    const { channel, source, campaign } = sourceOf({ intake, visit }, destination);
    const from = { channel, source, campaign: campaign ?? '' };
    const where = { page: visit.page ?? '', ...from, device: random.pick(DEVICES) };
    const add = (did: FormDid, count: number, item = '', seconds = 0) => {
      if (!count) return;
      const day = at.toISOString().slice(0, 10);
      const key = JSON.stringify([intakeId, day, where, did, item]);
      const known = days.get(key);
      days.set(key, {
        intakeId,
        day,
        version: 1,
        ...where,
        did,
        item,
        count: (known?.count ?? 0) + count,
        seconds: (known?.seconds ?? 0) + seconds,
      });
    };
    const left = random.between(0, 1);
    add('view', 1 + left + random.between(0, 2));
    add('start', 1 + left);
    add('stop', left, random.pick(STOPS[intake]!));
    add('send', 1, '', random.between(35, 160));
  }
  await services.database.inWorkspace(workspaceId, (tx) => services.formCounts.add(tx, [...days.values()]));
}
