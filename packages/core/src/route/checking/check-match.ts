import { checkThresholds } from '../../identity/likeness/thresholds';
import { jsonPointer } from '../../json';
import { error, warning, type Problem } from '../../problem';
import { listInWords } from '../../text';
import type { Write } from '../../definition/route-definition';
import { RULE_WORDS } from '../telling/describe';
import { FEEDING, recognitionOf } from './recognition';

/** What is wrong with the match rules of a write. */
export function checkMatch(write: Write, w: number): Problem[] {
  const rules = write.match ?? [];
  return [
    ...neverRecognised(write, w),
    ...rules.flatMap((rule, m) => {
      const way = ['writes', w, 'match', m];
      const at = jsonPointer([...way, 'by']);
      const fields = FEEDING[rule.by][write.record];
      if (!fields)
        return [error('match-does-not-fit', `A ${write.record} cannot be recognised by ${RULE_WORDS[rule.by]}.`, at)];
      const problems: Problem[] = [];
      if (rules.findIndex(({ by }) => by === rule.by) < m)
        problems.push(error('rule-twice', `Recognising by ${RULE_WORDS[rule.by]} is listed twice.`, at));
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
    }),
  ];
}

/** Each submission would make another record: sometimes that is meant, mostly it is not. */
function neverRecognised(write: Write, w: number): Problem[] {
  if (write.record === 'deal' || write.place?.again === 'new' || recognitionOf(write).rules.length) return [];
  return [
    warning(
      'never-recognised',
      `Nothing says by what a ${write.record} is recognised: every submission makes another.`,
      jsonPointer(['writes', w, 'match']),
    ),
  ];
}
