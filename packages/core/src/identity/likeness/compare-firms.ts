import { editDistance } from '../comparators/damerau-levenshtein';
import { domainFitsName } from '../comparators/domain-name';
import { numberLikeness, timeLikeness } from '../comparators/distances';
import { jaroWinkler } from '../comparators/jaro-winkler';
import { tokenSetLikeness } from '../comparators/token-set';
import type { CompanyNameForm } from '../company-name-form';
import { DIFFERENT, NOT_TOLD, type Agreement } from './agreement';
import type { ComparedRecord } from './compared';

/** From what likeness on the names of two companies, or the titles of two people, are nearly one. */
const NEARLY = 0.5;
const FITS = 0.9;
const TYPED_WRONG = 0.93;

/** Whether two people are of one company: by its record, its domain or its name. */
export function compareCompanies({ companies: one }: ComparedRecord, { companies: other }: ComparedRecord): Agreement {
  const told = (side: ComparedRecord['companies']) => side.ids.length + side.domains.length + side.names.length > 0;
  if (!told(one) || !told(other)) return NOT_TOLD;
  const id = one.ids.find((own) => other.ids.includes(own));
  if (id !== undefined) return { level: 'exact', how: 'same', value: id };
  const domain = one.domains.find((own) => other.domains.includes(own));
  if (domain !== undefined) return { level: 'exact', how: 'same', value: domain };
  let near: Agreement | null = null;
  for (const a of one.names)
    for (const b of other.names) {
      const agreed = compareFirmNames(a, b);
      if (agreed.level === 'exact') return agreed;
      if (agreed.level === 'near') near = agreed;
    }
  if (near) return near;
  const fits = (names: readonly CompanyNameForm[], domains: readonly string[]) =>
    names.some((name) => domains.some((own) => domainFitsName(own, name) >= FITS));
  if (fits(one.names, other.domains) || fits(other.names, one.domains)) return { level: 'near', how: 'fits-name' };
  return DIFFERENT;
}

export function compareFirmNames(one: CompanyNameForm | null, other: CompanyNameForm | null): Agreement {
  if (!one || !other) return NOT_TOLD;
  if (one.text === other.text || one.words.join('') === other.words.join(''))
    return { level: 'exact', how: 'same', value: one.text };
  if (
    Math.min(one.text.length, other.text.length) > 3 &&
    jaroWinkler(one.text, other.text) >= TYPED_WRONG &&
    oneLength(one, other)
  )
    return { level: 'near', how: 'typing' };
  if (tokenSetLikeness(one.words, other.words) >= NEARLY) return { level: 'near', how: 'alike' };
  return DIFFERENT;
}

/** A word more is another company more often than an error. */
function oneLength(one: CompanyNameForm, other: CompanyNameForm): boolean {
  return one.words.length === other.words.length;
}

export function compareDomains(one: ComparedRecord, other: ComparedRecord): Agreement {
  if (one.domain && other.domain) {
    if (one.domain === other.domain) return { level: 'exact', how: 'same', value: one.domain };
    const [a, b] = [one.domain.split('.')[0]!, other.domain.split('.')[0]!];
    if (a === b && a.length > 3) return { level: 'near', how: 'other-domain' };
    if (Math.min(a.length, b.length) > 4 && editDistance(one.domain, other.domain, 1) === 1)
      return { level: 'near', how: 'typing' };
    return DIFFERENT;
  }
  const [domain, name] = one.domain ? [one.domain, other.firmName] : [other.domain, one.firmName];
  return domain && name && domainFitsName(domain, name) >= FITS ? { level: 'near', how: 'fits-name' } : NOT_TOLD;
}

export function compareJobs(one: ComparedRecord, other: ComparedRecord): Agreement {
  if (!one.job.length || !other.job.length) return NOT_TOLD;
  const alike = tokenSetLikeness(one.job, other.job);
  if (alike === 1) return { level: 'exact', how: 'same', value: one.job.join(' ') };
  return alike >= NEARLY ? { level: 'near', how: 'alike' } : DIFFERENT;
}

export function compareContacts(one: ComparedRecord, other: ComparedRecord): Agreement {
  if (!one.contacts.length || !other.contacts.length) return NOT_TOLD;
  const same = one.contacts.find((id) => other.contacts.includes(id));
  return same === undefined ? DIFFERENT : { level: 'exact', how: 'same', value: same };
}

export function compareAmounts(one: ComparedRecord, other: ComparedRecord): Agreement {
  if (!one.value || !other.value) return NOT_TOLD;
  if (one.value.currency !== other.value.currency) return DIFFERENT;
  const alike = numberLikeness(one.value.amount, other.value.amount);
  return alike === 1 ? { level: 'exact', how: 'same' } : alike > 0.8 ? { level: 'near', how: 'alike' } : DIFFERENT;
}

export function compareBeginnings(one: ComparedRecord, other: ComparedRecord): Agreement {
  if (!one.begun || !other.begun) return NOT_TOLD;
  const alike = timeLikeness(one.begun, other.begun);
  return alike > 0.95 ? { level: 'exact', how: 'same' } : alike > 0.4 ? { level: 'near', how: 'alike' } : DIFFERENT;
}

export function comparePipelines(one: ComparedRecord, other: ComparedRecord): Agreement {
  if (!one.pipeline || !other.pipeline) return NOT_TOLD;
  return one.pipeline === other.pipeline ? { level: 'exact', how: 'same' } : DIFFERENT;
}
