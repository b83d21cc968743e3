export const DEVICES = ['phone', 'tablet', 'desktop'] as const;
export type Device = (typeof DEVICES)[number];

/** What a browser is, as far as its name tells (RFC 9110, 10.1.5): enough to count by, and no more than that is kept. */
export function deviceOf(userAgent: string): Device {
  if (/iPad|Tablet|PlayBook|Silk(?!.*Mobile)|Android(?!.*Mobile)/i.test(userAgent)) return 'tablet';
  return /Mobi|iPhone|iPod|Windows Phone/i.test(userAgent) ? 'phone' : 'desktop';
}
