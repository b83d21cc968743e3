import { effectOf } from '../../effect/registry';
import type { EffectSurroundings } from '../../effect/effect';
import { jsonPointer } from '../../json';
import { error, type Problem } from '../../problem';
import type { FollowUp } from '../../definition/route-definition';
import type { Value } from '../../value/value';

/** A value of a follow-up with the way to it inside the definition. */
export interface EffectValue {
  value: Value;
  way: (string | number)[];
}

/** Every value that a follow-up works out. */
export function effectValues(followUp: FollowUp, index: number): EffectValue[] {
  const values: EffectValue[] = [];
  effectOf(followUp)?.withValues(followUp, (value, way) => {
    values.push({ value, way: ['followUps', index, ...way] });
    return value;
  });
  return values;
}

/** What is wrong with a follow-up beyond its condition and its values: the write that it names, and what its kind says. */
export function checkEffect(followUp: FollowUp, index: number, around: EffectSurroundings): Problem[] {
  const kind = effectOf(followUp);
  if (!kind) return [];
  const at = (way: (string | number)[]) => jsonPointer(['followUps', index, ...way]);
  const { on } = followUp;
  if (on !== undefined && !around.route.writes.some(({ as }) => as === on))
    return [error('unknown-write', `No write is called “${on}”.`, at(['on']))];
  return kind.check(followUp, around).map(({ code, text, way }) => error(code, text, at(way)));
}
