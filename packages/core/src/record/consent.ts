/** The ways in which somebody may agree to be written to or called. */
export const CONSENT_CHANNELS = ['email', 'phone', 'text-message', 'post'] as const;
export type ConsentChannel = (typeof CONSENT_CHANNELS)[number];
