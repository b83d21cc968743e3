import { sourceOf } from '../../channel/source-of';
import { wayOf } from '../../channel/way';
import type { Destination } from '../../destination/destination';
import type { FieldValues } from '../../diff/record';
import type { JsonValue } from '../../json';
import type { FinisherContext, FinisherSetting } from '../../value/finishers/finisher';
import { type PartReader } from '../../value/work-out-value';
import { answerText } from '../../payload/answer-text';
import { answerAt } from '../../payload/fields';
import type { Visit } from '../../source/visit';
import { answerKeys } from '../editing/answers';
import type { Submission } from '../../payload/submission';

/** What finishers may know while a submission is worked out. */
export function finisherContext({ payload }: Submission, setting: FinisherSetting): FinisherContext {
  const { defaultCountry, defaultCurrency } = setting;
  return { defaultCountry, defaultCurrency, payload, answer: (key) => answerText(answerAt(payload, key)) };
}

/** Reads the parts that need nothing but the submission: answers, the visit and fixed texts. */
export function submissionReader(submission: Submission, destination: Destination): PartReader {
  return (part) => {
    if ('answer' in part) return firstAnswer(submission, answerKeys(part));
    if ('visit' in part) return visitPart(submission, part.visit, destination);
    if ('text' in part) return part.text;
    return undefined;
  };
}

/** The first answer that is not blank; otherwise what stands under the first key. */
function firstAnswer({ payload }: Submission, [first, ...others]: string[]): JsonValue | undefined {
  const found = answerAt(payload, first!);
  if (!others.length || answerText(found).trim() !== '') return found;
  return others.map((key) => answerAt(payload, key)).find((answer) => answerText(answer).trim() !== '') ?? found;
}

/** Reads parts of records that were written earlier in the run, besides those of the submission. */
export function withEarlierWrites(
  read: PartReader,
  written: ReadonlyMap<string, FieldValues>,
  facts?: ReadonlyMap<string, FieldValues>,
): PartReader {
  return (part) => {
    if (!('write' in part)) return read(part);
    const value = written.get(part.write)?.[part.field] ?? facts?.get(part.write)?.[part.field];
    return value as ReturnType<PartReader>;
  };
}

function visitPart(submission: Submission, name: string, destination: Destination): JsonValue | undefined {
  const { visit, origin, receivedAt } = submission;
  switch (name) {
    case 'receivedAt':
      return receivedAt;
    case 'source':
    case 'medium':
    case 'campaign':
    case 'channel':
      return sourceOf(submission, destination)[name];
    case 'said':
      return wayOf(submission, destination.intakeSources).said;
    case 'enteredBy':
    case 'sheet':
      return origin?.[name];
    default:
      return visit[name as Exclude<keyof Visit, 'earlier'>];
  }
}
