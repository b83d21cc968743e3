import { SPACING, type Theme, type ThemeFont } from '@haycart/core';

const FONTS: Record<ThemeFont, string> = {
  figtree: 'Figtree, system-ui, sans-serif',
  bricolage: "'Bricolage Grotesque', Figtree, system-ui, sans-serif",
  system: 'system-ui, sans-serif',
  serif: "Georgia, 'Times New Roman', serif",
  mono: "'IBM Plex Mono', ui-monospace, monospace",
};
const BUTTON = { small: '7px 16px', usual: '11px 24px', large: '15px 34px' };
const AT = { left: 'start', centre: 'center', right: 'end', full: 'stretch' };

/** A theme as the custom properties that the style sheet of forms is made of. Every value was checked or is ours. */
export function themeCss(theme: Theme): string {
  const colours = (['background', 'sheet', 'ink', 'accent'] as const).map((name) => `--${name}:${theme[name]}`);
  return `:root{${[
    ...colours,
    `--accent-ink:${theme.accentInk}`,
    `--font:${FONTS[theme.font]}`,
    `--corner:${theme.corner}px`,
    `--width:${theme.width}px`,
    `--gap:${SPACING[theme.spacing]}px`,
    `--align:${theme.align === 'centre' ? 'center' : 'left'}`,
    `--button:${BUTTON[theme.button.size]}`,
    `--button-at:${AT[theme.button.at]}`,
  ].join(';')}}`;
}
