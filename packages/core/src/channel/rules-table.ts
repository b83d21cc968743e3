import type { Destination } from '../destination/destination';
import type { TableAround } from '../decision/column';
import type { DecisionRow, DecisionTable } from '../decision/decision-table';
import { WAY_PARTS, type ChannelRule, type ChannelRules, type WayPart } from '../source/channel-rules';
import { OTHERWISE } from './usual-rules';

/** The column headings of the parts of a way. */
export const WAY_PART_LABELS: Readonly<Record<WayPart, string>> = {
  utm_source: 'Source',
  utm_medium: 'Medium',
  utm_campaign: 'Campaign',
  utm_term: 'Term',
  utm_content: 'Content',
  site: 'Referring site',
  click: 'Click parameter',
  page: 'Page',
  landing: 'Landing page',
  sheet: 'File',
  said: 'Said themselves',
  device: 'Device',
  country: 'Country',
};

/** The output columns of channel rules. */
export const SAID = { channel: 'Channel', source: 'Source', medium: 'Medium' } as const;

const tables = new WeakMap<ChannelRules, DecisionTable>();

/** The channel rules as a decision table. Cached for each set of rules. */
export function tableOfRules(rules: ChannelRules): DecisionTable {
  const before = tables.get(rules);
  if (before) return before;
  const made = tableOfParts(rules.rules, WAY_PARTS);
  tables.set(rules, made);
  return made;
}

/** The same with columns for some parts only. Tests of other parts are left out. */
export function tableOfParts(rules: readonly ChannelRule[], parts: readonly WayPart[]): DecisionTable {
  return {
    name: 'Channels',
    inputs: parts.map((part) => ({ of: { visit: part }, label: WAY_PART_LABELS[part] })),
    outputs: Object.values(SAID).map((name) => ({ name, type: 'text' })),
    rows: rules.map((rule) => rowOf(rule, parts)),
    otherwise: { [SAID.channel]: OTHERWISE },
  };
}

/** The parts that the rules test, in column order. */
export function partsAsked(rules: readonly ChannelRule[]): WayPart[] {
  return WAY_PARTS.filter((part) => rules.some(({ when }) => when[part]));
}

/** The channel rules of a table. Unreadable cells are kept, so that the check can report them. */
export function rulesOfTable({ inputs, rows }: Pick<DecisionTable, 'inputs' | 'rows'>): ChannelRule[] {
  const parts = inputs.map(({ of }) => ('visit' in of ? of.visit : ''));
  return rows.map(({ when, then, note }) => ({
    when: Object.fromEntries(parts.flatMap((part, index) => (when[index] ? [[part, when[index]]] : []))),
    channel: textOf(then[SAID.channel]) ?? '',
    ...(textOf(then[SAID.source]) ? { source: textOf(then[SAID.source]) } : {}),
    ...(textOf(then[SAID.medium]) ? { medium: textOf(then[SAID.medium]) } : {}),
    ...(note ? { note } : {}),
  }));
}

/** The surroundings of a channel rules table: it can use value sets only. Cached for each destination. */
export function aroundRules(destination: Destination): TableAround {
  const before = arounds.get(destination);
  if (before) return before;
  const made: TableAround = { destination, writes: [], tables: [] };
  arounds.set(destination, made);
  return made;
}

const arounds = new WeakMap<Destination, TableAround>();

function rowOf({ when, channel, source, medium, note }: ChannelRule, parts: readonly WayPart[]): DecisionRow {
  return {
    when: parts.map((part) => when[part] ?? null),
    then: {
      ...(channel ? { [SAID.channel]: channel } : {}),
      ...(source ? { [SAID.source]: source } : {}),
      ...(medium ? { [SAID.medium]: medium } : {}),
    },
    ...(note ? { note } : {}),
  };
}

function textOf(value: unknown): string | undefined {
  return typeof value === 'string' && value !== '' ? value : undefined;
}
