import { collapse } from './collapse';
import { companyDomainOf } from './company-domain';
import { email } from './email';
import type { Finisher } from './finisher';
import { nameCase } from './name-case';
import { phone } from './phone';
import { trim } from './trim';
import { wholeText } from './whole-text';

/** Every finisher, in the order in which the editor offers them. */
export const FINISHERS: readonly Finisher[] = [trim, collapse, email, nameCase, phone, wholeText, companyDomainOf];

const byName = new Map(FINISHERS.map((finisher) => [finisher.name, finisher]));

export function finisherNamed(name: string): Finisher | undefined {
  return byName.get(name);
}
