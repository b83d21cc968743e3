import { fieldOf, recordWord, type Destination } from '../destination/destination';
import { RECORD_KINDS, type FieldValues } from '../diff/record';
import type { RouteDefinition } from '../definition/route-definition';
import { showFieldValue } from '../field/field-value';
import { namesInMail, textsOfMail, type MailTemplate, type MailValues } from '../mail/mail-template';
import { withArticle } from '../text';
import type { EffectContext, EffectRecord } from './effect';

export function templateOf({ templates = [] }: Pick<Destination, 'templates'>, key: string): MailTemplate | undefined {
  return templates.find((one) => one.key === key);
}

/** The record of the visitor whose address is known: the first contact or lead that has one. */
export function visitorOf(records: readonly EffectRecord[]): EffectRecord | undefined {
  return records.find(({ kind, values }) => (kind === 'contact' || kind === 'lead') && values.email);
}

/** Why a template may not name what it names, as sentences. `also` may be named besides: `confirm.link`. */
export function wrongNames(
  template: MailTemplate,
  route: RouteDefinition,
  destination: Destination,
  also: readonly string[] = [],
): string[] {
  const wrong = textsOfMail(template)
    .flatMap(namesInMail)
    .flatMap(({ path }) => (also.includes(path.join('.')) ? [] : (whatIsWrong(path, route, destination) ?? [])));
  return [...new Set(wrong)].map((text) => `The template ${template.name} ${text}`);
}

/** Why a template may not name something, as the end of a sentence; `null` where it may. */
function whatIsWrong([first = '', second]: string[], route: RouteDefinition, destination: Destination): string | null {
  if (first === 'answers') return null;
  if (first === 'route')
    return second === undefined || second === 'name' ? null : `names route.${second}, which is not known.`;
  const kind = RECORD_KINDS.find((one) => one === first) ?? route.writes.find(({ as }) => as === first)?.record;
  if (!kind) return `names “${first}”, which is neither answers, nor route, nor a kind of record.`;
  if (!route.writes.some(({ record }) => record === kind))
    return `names ${withArticle(recordWord(destination, kind))}, and the route writes none.`;
  if (second !== undefined && !fieldOf(destination, kind, second))
    return `names ${first}.${second}, and ${withArticle(recordWord(destination, kind))} has no such field.`;
  return null;
}

/** What a template may name of a run: each record by its kind, the first of it, and by the name of its write. */
export function mailValues({
  records,
  route,
  submission,
  destination,
}: Pick<EffectContext, 'records' | 'route' | 'submission' | 'destination'>): MailValues {
  const byKind = records.toReversed().map((record) => [record.kind, shown(record, destination)] as const);
  const byName = records.map((record) => [record.as, shown(record, destination)] as const);
  return {
    ...Object.fromEntries([...byName, ...byKind]),
    answers: submission.payload,
    route: { name: route.name },
  };
}

function shown({ kind, values }: EffectRecord, destination: Destination): FieldValues {
  return Object.fromEntries(
    Object.entries(values).map(([key, one]) => [key, showFieldValue(fieldOf(destination, kind, key), one)]),
  );
}
