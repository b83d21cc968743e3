/** The ways in which somebody may agree to be written to or called. */
export const CONSENT_CHANNELS = ['email', 'phone', 'text-message', 'post'] as const;
export type ConsentChannel = (typeof CONSENT_CHANNELS)[number];

/** What was said of a channel; `pending` where the address has yet to be confirmed. The latest holds. */
export const CONSENT_STATES = ['given', 'withdrawn', 'pending'] as const;
export type ConsentState = (typeof CONSENT_STATES)[number];

/** How a channel is called inside a sentence: `text message`. */
export const CHANNEL_WORDS: Readonly<Record<ConsentChannel, string>> = {
  email: 'e-mail',
  phone: 'phone',
  'text-message': 'text message',
  post: 'post',
};
