import type { FollowUp } from '@haycart/core';

/** Whether a follow-up adds fixed tags or lists whatever was sent: it is chosen beside the record, and needs no step. */
export function isPlainMark({ do: kind, when, tags, lists }: FollowUp): boolean {
  return (kind === 'tag' || kind === 'list') && !when && (tags !== undefined || lists !== undefined);
}
