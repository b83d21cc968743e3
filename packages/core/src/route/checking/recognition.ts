import type { RecordKind } from '../../diff/record';
import type { MatchRule, WhenSeveral, Write } from '../../definition/route-definition';

/** Whose fields must be fed for a rule to find anything, by kind of record: one of them. */
export const FEEDING: Readonly<Record<MatchRule['by'], Readonly<Partial<Record<RecordKind, readonly string[]>>>>> = {
  email: { contact: ['email'], lead: ['email'] },
  phone: { contact: ['phone'], company: ['phone'], lead: ['phone'] },
  domain: { company: ['domain'] },
  'external-id': {
    contact: ['external_ids'],
    company: ['external_ids'],
    lead: ['external_ids'],
  },
  name: { contact: ['full_name', 'last_name'], company: ['name'] },
  likeness: {
    contact: ['email', 'phone', 'full_name', 'last_name'],
    company: ['name', 'domain'],
    lead: ['email', 'phone', 'name'],
  },
};

/** By what a kind of record can be recognised. */
export function rulesFor(record: RecordKind): MatchRule['by'][] {
  return (Object.keys(FEEDING) as MatchRule['by'][]).filter((by) => FEEDING[by][record]);
}

/** By what each kind of record is recognised where nobody says otherwise, of what can be fed; leads have a rule of their own. */
const USUAL: Readonly<Record<RecordKind, readonly MatchRule['by'][]>> = {
  contact: ['external-id', 'email'],
  company: ['external-id', 'domain', 'name'],
  lead: [],
  deal: [],
};

/** The rules by which a record with these fields is usually recognised; a person without any of them by their number. */
export function usualRules(record: RecordKind, fed: readonly string[]): MatchRule[] {
  const feeds = (by: MatchRule['by']) => FEEDING[by][record]?.some((field) => fed.includes(field));
  const usual = USUAL[record].filter(feeds);
  if (!usual.length && record === 'contact' && feeds('phone')) return [{ by: 'phone' }];
  return usual.map((by) => ({ by }) as MatchRule);
}

/** How the existing records of a write are recognised, as it is done: what the engine runs, and what the screen says. */
export interface Recognition {
  rules: readonly MatchRule[];
  /** Which of several is taken where a rule says nothing of its own. */
  whenSeveral: WhenSeveral;
  /** Whether only records that are open count. */
  openOnly: boolean;
  /** Whether the rules are those that hold where the route has none. */
  byDefault: boolean;
}

/** A lead that is still open is found again by its e-mail, the latest of several, where the route has no rules of its own. */
export function recognitionOf({ record, match = [], whenSeveral, place, fills }: Write): Recognition {
  if (record !== 'lead')
    return { rules: match, whenSeveral: whenSeveral ?? 'oldest', openOnly: false, byDefault: false };
  const again = place?.again ?? 'update';
  const byMail = fills.some(({ field }) => field === 'email');
  const byDefault = match.length === 0 && byMail;
  return {
    rules: again === 'new' ? [] : byDefault ? [{ by: 'email' }] : match,
    whenSeveral: whenSeveral ?? 'latest',
    openOnly: again !== 'leave',
    byDefault,
  };
}
