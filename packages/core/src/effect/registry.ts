import type { z } from '../schema-library';
import type { FollowUp } from '../route/definition';
import type { EffectKind } from './effect';
import { list } from './kinds/list';
import { post } from './kinds/post';
import { tag } from './kinds/tag';

/** Every kind of follow-up, in the order in which the editor offers them. */
export const EFFECT_KINDS: readonly EffectKind[] = [tag, list, post];

const byName = new Map(EFFECT_KINDS.map((kind) => [kind.do, kind]));

/** The kind of a follow-up; `undefined` for one that cannot be carried out yet. */
export function effectOf(followUp: FollowUp): EffectKind | undefined {
  return byName.get(followUp.do);
}

/** The shapes of all settings. */
export function effectShapes(): z.ZodType<FollowUp>[] {
  return EFFECT_KINDS.map(({ shape }) => shape);
}
