import { collapse } from './collapse';
import { companyDomainOf } from './company-domain';
import { country } from './country';
import { date } from './date';
import { defaultText } from './default-text';
import { digitsOnly } from './digits-only';
import { domain } from './domain';
import { email } from './email';
import { extract } from './extract';
import type { Finisher } from './finisher';
import { hash } from './hash';
import { joinList } from './join-list';
import { letterCase } from './letter-case';
import { money } from './money';
import { nameCase } from './name-case';
import { number } from './number';
import { phone } from './phone';
import { pickItem } from './pick-item';
import { postalCode } from './postal-code';
import { replace } from './replace';
import { shortenText } from './shorten-text';
import { splitList } from './split-list';
import { splitName } from './split-name';
import { template } from './template';
import { translate } from './translate';
import { trim } from './trim';
import { webAddress } from './web-address';
import { wholeText } from './whole-text';
import { withoutMarkup } from './without-markup';
import { yesNo } from './yes-no';

/** Every finisher, in the order in which the editor offers them. */
export const FINISHERS: readonly Finisher[] = [
  trim,
  collapse,
  letterCase,
  nameCase,
  splitName,
  email,
  phone,
  webAddress,
  domain,
  companyDomainOf,
  country,
  postalCode,
  date,
  number,
  money,
  yesNo,
  wholeText,
  withoutMarkup,
  shortenText,
  replace,
  extract,
  pickItem,
  joinList,
  splitList,
  translate,
  defaultText,
  template,
  digitsOnly,
  hash,
];

const byName = new Map(FINISHERS.map((finisher) => [finisher.name, finisher]));

export function finisherNamed(name: string): Finisher | undefined {
  return byName.get(name);
}
