import { capitalised, CHANNEL_WORDS, CONSENT_CHANNELS, type ConsentChannel } from '@haycart/core';

/** What a channel is called where it stands alone. */
export const CHANNEL_LABELS = Object.fromEntries(
  CONSENT_CHANNELS.map((channel) => [channel, capitalised(CHANNEL_WORDS[channel])]),
) as Record<ConsentChannel, string>;
