import type { FollowUp } from '@haycart/core';

/** A follow-up with a setting of another value; without it where there is none. */
export function without(followUp: FollowUp, setting: string, value: unknown): FollowUp {
  const { [setting]: _, ...rest } = followUp;
  return { ...rest, do: followUp.do, ...(value === undefined ? {} : { [setting]: value }) };
}
