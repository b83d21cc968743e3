import { countedRecords, recordWord, type Destination } from '../../destination/destination';
import { percent } from '../../identity/likeness/words';
import { listInWords } from '../../text';
import type { MatchRule } from '../../definition/route-definition';
import { RULE_WORDS } from './describe';
import type { PlannedWrite } from '../planning/plan';

/** Why a write wrote nothing, as a part of a sentence. */
export function whyNothing(
  { unmet, leftOut, match, record }: PlannedWrite,
  words: Pick<Destination, 'dealWord'>,
): string {
  const word = recordWord(words, record);
  if (unmet !== undefined) return `it is written only when ${unmet}`;
  if (!leftOut) return 'the submission gave nothing for one';
  if (match.by === 'person') return 'a person said so';
  const by = match.key ?? 'this';
  if (match.found > 1)
    return `${countedRecords(words, match.found, record)} have ${by}, and the route then writes none`;
  if (match.found === 1) return `one with ${by} is known, and the route leaves those out`;
  return match.key ? `none has ${match.key}, and the route makes none` : `nothing came to recognise a ${word} by`;
}

/** How a record was recognised, or why it was not, as one sentence. Empty where nothing was written. */
export function matchInWords({ match, record, did }: PlannedWrite, words: Pick<Destination, 'dealWord'>): string {
  const word = recordWord(words, record);
  const also = match.merged?.length
    ? ` ${countedRecords(words, match.merged.length, record)} more turned out to be the same, and became one with it.`
    : '';
  if (match.by) return `${recognisedBy(match, word)}${also}`;
  if (did !== 'create') return '';
  const { notEnough = [] } = match;
  if (record === 'deal')
    return notEnough.length
      ? `Another ${word}: ${listInWords(notEnough)}.`
      : `The contact has no ${word} in the pipeline yet.`;
  return match.key ? `No ${word} has ${match.key} yet.` : `Nothing came to recognise the ${word} by.`;
}

function recognisedBy({ by, key, found, candidates }: PlannedWrite['match'], word: string): string {
  if (by === 'open-deal') return `Found the ${word} that this contact has in the pipeline already.`;
  if (by === 'open-lead') return `Found the ${word} with ${key}.`;
  if (by === 'person') return `A person said which ${word} is meant.`;
  const best = candidates?.[0]?.probability;
  if (best !== null && best !== undefined) return `Recognised the ${word} by likeness, ${percent(best)} the same.`;
  const rule = RULE_WORDS[by as MatchRule['by']] ?? by;
  const others = found === 1 ? `the only ${word} with it` : `the one taken of ${found} with it`;
  return `Recognised the ${word} by ${rule} ${key}, ${others}.`;
}
