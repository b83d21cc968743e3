import { fieldOf, type Destination } from '../../destination/destination';
import { FIELD_LIMITS } from '../../field/check-field';
import { optionFor } from '../../field/field-value';
import { finisherNamed } from '../../value/finishers/registry';
import { joinParts, type ValueTrace } from '../../value/work-out-value';
import type { RouteDefinition } from '../../definition/route-definition';
import type { FinisherUse } from '../../value/value';
import type { Plan } from './plan';

/** A value that came for a field with options and names none of them; `as` is the write of the route. */
export interface UnmappedAnswer {
  as: string;
  field: string;
  value: string;
}

/** At most so many are told of one run. */
const MOST = 50;

/**
 * The values of a run that no option stands for, whether the run waits for them or went on without. Those that are longer
 * than an option’s name can be are texts that somebody typed, and are left out.
 */
export function unmappedAnswers(plan: Pick<Plan, 'reason' | 'writes'>, destination: Destination): UnmappedAnswer[] {
  const about = plan.reason?.about;
  const left = plan.writes.flatMap(({ as, record, fields }) =>
    fields.flatMap(({ field, why, trace }) => {
      const options = fieldOf(destination, record, field)?.options;
      if (!options || why !== 'unreadable' || !trace) return [];
      return linesOf(trace).flatMap((value) => (optionFor(options, value) ? [] : [{ as, field, value }]));
    }),
  );
  return [...(about ? [about] : []), ...left].filter(({ value }) => value.length <= FIELD_LIMITS.label).slice(0, MOST);
}

function linesOf({ parts, steps }: ValueTrace): string[] {
  const text =
    steps.at(-1)?.after ??
    joinParts(
      parts.map((part) => part.text),
      ' ',
    );
  return [...new Set(text.split('\n').map((line) => line.trim()))].filter(Boolean);
}

/**
 * The route after a value got a line in the translation table of its field; `null` where the field has no table, so that
 * the field’s own options must learn the word.
 */
export function withTranslation(
  route: RouteDefinition,
  { as, field, value }: UnmappedAnswer,
  option: string,
): RouteDefinition | null {
  let changed = false;
  const translated = (use: FinisherUse): FinisherUse => {
    if (use.use !== TRANSLATE) return use;
    changed = true;
    return { ...use, with: { ...use.with, table: { ...(use.with?.table as object), [value]: option } } };
  };
  const writes = route.writes.map((write) =>
    write.as === as
      ? {
          ...write,
          fills: write.fills.map((fill) =>
            fill.field === field && fill.value.finishers
              ? { ...fill, value: { ...fill.value, finishers: fill.value.finishers.map(translated) } }
              : fill,
          ),
        }
      : write,
  );
  return changed ? { ...route, writes } : null;
}

const TRANSLATE = finisherNamed('translate')!.name;
