import { error, warning, type Problem } from '../problem';

/** How forms look: a theme is shared by the forms that wear it. */
export interface Theme {
  /** One of the fonts that ship with Hay Cart, or what the visitor's machine has. */
  font: ThemeFont;
  /** `#rrggbb` */
  background: string;
  sheet: string;
  ink: string;
  accent: string;
  /** On the button, upon `accent`. */
  accentInk: string;
  /** Pixels. */
  corner: number;
  width: number;
  spacing: 'tight' | 'usual' | 'airy';
  align: 'left' | 'centre';
  button: { size: 'small' | 'usual' | 'large'; at: 'left' | 'centre' | 'right' | 'full' };
}
export const THEME_FONTS = ['figtree', 'bricolage', 'system', 'serif', 'mono'] as const;
export type ThemeFont = (typeof THEME_FONTS)[number];

/** The room between questions, in pixels. */
export const SPACING = { tight: 14, usual: 20, airy: 30 } as const satisfies Record<Theme['spacing'], number>;

/** What a form wears that names no theme. */
export const PLAIN_THEME: Theme = {
  font: 'figtree',
  background: '#f1f4f8',
  sheet: '#ffffff',
  ink: '#1b2b36',
  accent: '#27687a',
  accentInk: '#ffffff',
  corner: 3,
  width: 600,
  spacing: 'usual',
  align: 'left',
  button: { size: 'usual', at: 'left' },
};

/** The contrast of two colours, from 1 to 21 (WCAG 2.2, relative luminance). */
export function contrast(one: string, other: string): number {
  const [light, dark] = [luminance(one), luminance(other)].sort((a, b) => b - a) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}

function luminance(colour: string): number {
  const [red, green, blue] = [1, 3, 5].map((at) => {
    const share = parseInt(colour.slice(at, at + 2), 16) / 255;
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}

/** The contrast that text needs (WCAG 2.2 AA, 1.4.3), and what marks a control (1.4.11). */
export const TEXT_CONTRAST = 4.5;
export const CONTROL_CONTRAST = 3;

/** The colours of a page that a form stands in, as `#rrggbb`; whatever else was sent is not looked at. */
export interface HostColours {
  background?: string | null;
  ink?: string | null;
  accent?: string | null;
}

/** A theme in the colours of the page around it, as far as everything can still be read well. */
export function inColoursOf(theme: Theme, { background, ink, accent }: HostColours): Theme {
  const isColour = (text: string | null | undefined): text is string => !!text && /^#[0-9a-f]{6}$/i.test(text);
  const worn = { ...theme };
  if (isColour(background) && isColour(ink) && contrast(ink, background) >= TEXT_CONTRAST)
    Object.assign(worn, { background, ink, sheet: contrast(ink, '#ffffff') >= TEXT_CONTRAST ? '#ffffff' : background });
  const button = [accent, theme.accent, worn.ink].filter(isColour);
  worn.accent = button.find((one) => contrast(one, worn.background) >= CONTROL_CONTRAST) ?? worn.ink;
  if (contrast(worn.accentInk, worn.accent) < TEXT_CONTRAST)
    worn.accentInk = contrast('#ffffff', worn.accent) >= TEXT_CONTRAST ? '#ffffff' : '#000000';
  return worn;
}

/** What is wrong with a theme: colours that are none, and those that cannot be read upon each other. */
export function checkTheme(theme: Theme): Problem[] {
  const colours = ['background', 'sheet', 'ink', 'accent', 'accentInk'] as const;
  const wrong = colours.filter((name) => !/^#[0-9a-f]{6}$/i.test(theme[name]));
  if (wrong.length) return wrong.map((name) => error('not-a-colour', 'A colour is written as #1b2b36.', `/${name}`));
  const pairs: [keyof Theme & ('ink' | 'accentInk' | 'accent'), 'background' | 'sheet' | 'accent', number, string][] = [
    ['ink', 'background', TEXT_CONTRAST, 'The text upon the background'],
    ['ink', 'sheet', TEXT_CONTRAST, 'What is typed upon its field'],
    ['accentInk', 'accent', TEXT_CONTRAST, 'The words of the button'],
    ['accent', 'background', CONTROL_CONTRAST, 'The button upon the background'],
  ];
  return pairs.flatMap(([one, other, least, what]) => {
    const found = contrast(theme[one], theme[other]);
    return found < least
      ? [
          warning(
            'low-contrast',
            `${what} has a contrast of ${found.toFixed(1)}; ${least} is needed to be read well.`,
            `/${one}`,
          ),
        ]
      : [];
  });
}
