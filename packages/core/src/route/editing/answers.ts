import type { RecordKind } from '../../diff/record';
import { mapCondition } from '../../condition/condition';
import { effectOf } from '../../effect/registry';
import { finisherNamed } from '../../value/finishers/registry';
import { finisherParameters } from '../../value/finishers/parameters';
import { foldKey } from '../../payload/key';
import type { Condition, FollowUp, RouteDefinition } from '../../definition/route-definition';
import type { Part, Value } from '../../value/value';

/** The keys under which a part looks for its answer, in their order. */
export function answerKeys(part: Extract<Part, { answer: string }>): string[] {
  return [part.answer, ...(part.or ?? [])];
}

/** Whether what a part names is among the fields that arrive, itself or as what is around them. */
export function arrives(part: Extract<Part, { answer: string }>, arriving: readonly string[]): boolean {
  const keys = answerKeys(part).map(foldKey);
  return arriving.some((key) => {
    const field = foldKey(key);
    return keys.some((wanted) => field === wanted || field.startsWith(`${wanted}.`) || field.startsWith(`${wanted}[`));
  });
}

/** Every answer that a route names, by key: in its values, its conditions and the settings of its finishers. */
export function answersUsed(route: RouteDefinition): Set<string> {
  const used = new Set<string>();
  rewritten(route, {
    part: (part) => {
      if ('answer' in part) answerKeys(part).forEach((key) => used.add(key));
      return part;
    },
    setting: (key) => {
      used.add(key);
      return key;
    },
  });
  return used;
}

/** Whether a route names an answer, however its key is written. */
export function usesAnswer(route: RouteDefinition, key: string): boolean {
  const wanted = foldKey(key);
  return [...answersUsed(route)].some((used) => foldKey(used) === wanted);
}

/**
 * The route after a sender gave a field another name: it looks under the new name first and then under the old one, so
 * that both what comes and what came before is read.
 */
export function withAnswerRenamed(route: RouteDefinition, from: string, to: string): RouteDefinition {
  const old = foldKey(from);
  return rewritten(route, {
    part: (part) => {
      if (!('answer' in part)) return part;
      const keys = answerKeys(part);
      if (!keys.some((key) => foldKey(key) === old)) return part;
      const [answer, ...or] = [to, ...keys.filter((key) => key !== to)];
      return { answer: answer!, or };
    },
    setting: (key) => (foldKey(key) === old ? to : key),
  });
}

/** The fields whose Liquid template names an answer: its text is a person’s, so that nothing rewrites it. */
export function templatesNaming(route: RouteDefinition, key: string): { record: RecordKind; field: string }[] {
  const named = new RegExp(`answers(\\.|\\[["'])${key.replace(/[^\p{L}\p{Nd}]/gu, '\\$&')}(?![\\p{L}\\p{Nd}_])`, 'u');
  return route.writes.flatMap(({ record, fills }) =>
    fills
      .filter(({ value }) =>
        value.finishers?.some((use) => use.use === 'template' && named.test(String(use.with?.text))),
      )
      .map(({ field }) => ({ record, field })),
  );
}

/** The route with each of its parts changed. */
export function withParts(route: RouteDefinition, part: (part: Part) => Part): RouteDefinition {
  return rewritten(route, { part, setting: (key) => key });
}

/** What is done to each part of a route, and to each setting of a finisher that is the key of an answer. */
interface Rewriting {
  part: (part: Part) => Part;
  setting: (key: string) => string;
}

function rewritten(route: RouteDefinition, rewriting: Rewriting): RouteDefinition {
  const value = (one: Value): Value => rewrittenValue(one, rewriting);
  const condition = (one: Condition): Condition => mapCondition(one, rewriting.part);
  return {
    ...route,
    ...(route.onlyWhen ? { onlyWhen: condition(route.onlyWhen) } : {}),
    ...(route.decisions
      ? {
          decisions: route.decisions.map((table) => ({
            ...table,
            inputs: table.inputs.map((input) => ({
              ...input,
              of: rewriting.part(input.of),
              ...(input.postcode ? { postcode: rewriting.part(input.postcode) } : {}),
            })),
          })),
        }
      : {}),
    writes: route.writes.map((write) => ({
      ...write,
      ...(write.when ? { when: condition(write.when) } : {}),
      fills: write.fills.map((fill) => ({ ...fill, value: value(fill.value) })),
      ...(write.place
        ? { place: { ...write.place, pipeline: value(write.place.pipeline), stage: value(write.place.stage) } }
        : {}),
    })),
    ...(route.followUps ? { followUps: route.followUps.map((one) => rewrittenEffect(one, value, condition)) } : {}),
    ...(route.holds
      ? { holds: route.holds.map((hold) => (hold.when ? { ...hold, when: condition(hold.when) } : hold)) }
      : {}),
  };
}

function rewrittenEffect(
  followUp: FollowUp,
  value: (one: Value) => Value,
  condition: (one: Condition) => Condition,
): FollowUp {
  const rewritten = effectOf(followUp)?.withValues(followUp, value) ?? followUp;
  return rewritten.when ? { ...rewritten, when: condition(rewritten.when) } : rewritten;
}

function rewrittenValue(value: Value, { part, setting }: Rewriting): Value {
  return {
    ...value,
    parts: value.parts.map(part),
    ...(value.finishers
      ? {
          finishers: value.finishers.map((use) => {
            const finisher = finisherNamed(use.use);
            const keys = finisher ? finisherParameters(finisher).filter(({ kind }) => kind === 'answer') : [];
            const settings = keys.flatMap(({ name }) => {
              const key = use.with?.[name];
              return typeof key === 'string' && key !== '' ? [[name, setting(key)] as const] : [];
            });
            return settings.length ? { ...use, with: { ...use.with, ...Object.fromEntries(settings) } } : use;
          }),
        }
      : {}),
  };
}
