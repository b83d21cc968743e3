import type { z } from '../schema-library';
import type { FollowUp } from '../definition/route-definition';
import type { EffectKind } from './effect';
import { consent } from './kinds/consent';
import { document } from './kinds/document';
import { field } from './kinds/field';
import { list } from './kinds/list';
import { mail } from './kinds/mail';
import { message } from './kinds/message';
import { note } from './kinds/note';
import { post } from './kinds/post';
import { tag } from './kinds/tag';
import { task } from './kinds/task';

/** Every kind of follow-up, in the order in which the editor offers them. */
export const EFFECT_KINDS: readonly EffectKind[] = [
  task,
  note,
  document,
  message,
  mail,
  consent,
  tag,
  list,
  field,
  post,
];

const byName = new Map(EFFECT_KINDS.map((kind) => [kind.do, kind]));

/** The kind of a follow-up; `undefined` where there is no such kind. */
export function effectOf(followUp: FollowUp): EffectKind | undefined {
  return byName.get(followUp.do);
}

/** The shapes of all settings. */
export function effectShapes(): z.ZodType<FollowUp>[] {
  return EFFECT_KINDS.map(({ shape }) => shape);
}
