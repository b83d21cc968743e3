import { capitalised } from '@haycart/core';

/** A channel as people read it; what nothing is known of has a word too. */
export function channelWord(channel: string): string {
  return channel === '' ? 'Unknown' : capitalised(channel);
}
