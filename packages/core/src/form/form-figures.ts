import type { Device } from '../source/device';

/** What somebody did at a form: looked, began to answer, left at a question, sent it. */
export const FORM_DID = ['view', 'start', 'stop', 'send'] as const;
export type FormDid = (typeof FORM_DID)[number];

/** One line of what was counted. */
export interface FormTally {
  version: number;
  page: string;
  source: string;
  device: Device;
  did: FormDid;
  item: string;
  count: number;
  seconds: number;
}

/** The figures of a form, whole or of a part of its visitors. */
export interface FormFigures {
  views: number;
  starts: number;
  sends: number;
  /** Of those who looked, how many sent: 0 to 1; `null` while nobody looked. */
  completion: number | null;
  /** How long those who sent took, on average, in seconds; `null` while nobody sent. */
  seconds: number | null;
}

export function figuresOf(tallies: readonly FormTally[]): FormFigures {
  const sum = (did: FormDid, of: 'count' | 'seconds' = 'count') =>
    tallies.reduce((total, tally) => total + (tally.did === did ? tally[of] : 0), 0);
  const [views, starts, sends] = [sum('view'), sum('start'), sum('send')];
  return {
    views,
    starts,
    sends,
    completion: views ? Math.min(1, sends / views) : null,
    seconds: sends ? Math.round(sum('send', 'seconds') / sends) : null,
  };
}

/** The figures of each part of a form's visitors, those with the most views first. */
export function figuresBy(
  tallies: readonly FormTally[],
  part: 'version' | 'page' | 'source' | 'device',
): { name: string; figures: FormFigures }[] {
  const parts = new Map<string, FormTally[]>();
  for (const tally of tallies) {
    const name = String(tally[part]);
    parts.set(name, [...(parts.get(name) ?? []), tally]);
  }
  return [...parts]
    .map(([name, own]) => ({ name, figures: figuresOf(own) }))
    .sort((a, b) => b.figures.views - a.figures.views || (a.name < b.name ? -1 : 1));
}

/** How many left at each question, of all who began. */
export function stopsOf(tallies: readonly FormTally[]): Record<string, number> {
  const stops = new Map<string, number>();
  for (const { did, item, count } of tallies) if (did === 'stop') stops.set(item, (stops.get(item) ?? 0) + count);
  return Object.fromEntries(stops);
}
