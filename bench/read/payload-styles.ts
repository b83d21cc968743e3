import { HELD_OUT } from './held-out-styles';
import type { PayloadStyle } from './payload-style';
import { OF_TONGUES } from './tongues';
import { TUNED } from './tuned-styles';

/** How senders write answers down: those that reading was made for, and those that it was not. */
export const PAYLOAD_STYLES: readonly PayloadStyle[] = [
  ...TUNED.map((style) => ({ ...style, heldOut: false })),
  ...HELD_OUT.map((style) => ({ ...style, heldOut: true })),
  ...OF_TONGUES,
];
