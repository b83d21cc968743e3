import type { RecordKind } from '../diff/record';
import { checkThresholds } from '../identity/likeness/thresholds';
import { jsonPointer } from '../json';
import { error, type Problem } from '../problem';
import { listInWords } from '../text';
import type { MatchRule, Write } from './definition';
import { RULE_WORDS } from './describe';

/** By what each kind of record can be recognised, and which of its fields must be fed for it: one of them. */
const FEEDING: Readonly<Record<MatchRule['by'], Readonly<Partial<Record<RecordKind, readonly string[]>>>>> = {
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

/** What is wrong with the match rules of a write. */
export function checkMatch(write: Write, w: number): Problem[] {
  const rules = write.match ?? [];
  return rules.flatMap((rule, m) => {
    const way = ['writes', w, 'match', m];
    const at = jsonPointer([...way, 'by']);
    const fields = FEEDING[rule.by][write.record];
    if (!fields)
      return [error('match-does-not-fit', `A ${write.record} cannot be recognised by ${RULE_WORDS[rule.by]}.`, at)];
    const problems: Problem[] = [];
    if (rules.findIndex(({ by }) => by === rule.by) < m)
      problems.push(error('rule-twice', `Recognising by ${RULE_WORDS[rule.by]} stands there twice.`, at));
    if (!fields.some((field) => write.fills.some((fill) => fill.field === field)))
      problems.push(
        error(
          'match-unfed',
          `Recognising by ${RULE_WORDS[rule.by]} needs the field ${listInWords(fields, 'or')}, which nothing feeds.`,
          at,
        ),
      );
    if (rule.by === 'likeness') problems.push(...checkThresholds(rule, jsonPointer([...way, 'ask'])));
    return problems;
  });
}
