import type { Destination } from '../destination/destination';
import { columnValue } from '../decision/column';
import { cellSetting, decide, readyTable } from '../decision/decide';
import type { Submission } from '../payload/submission';
import type { ChannelRules, Way, WayPart } from '../source/channel-rules';
import { domainOf } from '../source/site';
import type { Source } from '../source/source';
import { joinedName, registeredCode } from './names';
import { aroundRules, SAID, tableOfRules } from './rules-table';
import { OTHERWISE, USUAL_RULES } from './usual-rules';
import { own, wayOf } from './way';

/** Channel rules do not depend on the time. */
const ANY_TIME = '2026-01-01T00:00:00.000Z';

/** The source of a submission. */
export function sourceOf(
  submission: Pick<Submission, 'intake' | 'visit' | 'origin'> & Partial<Pick<Submission, 'payload'>>,
  destination: Destination,
): Source {
  const before = known.get(submission);
  if (before?.destination === destination) return before.source;
  const source = sourceOfWay(wayOf(submission, destination.intakeSources), destination);
  known.set(submission, { destination, source });
  return source;
}

/** Cached, because a plan asks several times for the same submission. */
const known = new WeakMap<object, { destination: Destination; source: Source }>();

/**
 * The source of a way, by the first channel rule that fits. The intake's own source is used when the way tells nothing, or
 * always when the intake says so.
 */
export function sourceOfWay(way: Way, destination: Destination): Source {
  const rules = destination.channelRules ?? USUAL_RULES;
  const { constant, always = false } = own(destination.intakeSources ?? {}, way.intake) ?? {};
  if (!constant || !(always || isBare(way))) return byRules(way, rules, destination);
  const { channel, source, medium, campaign } = constant;
  const said: Way = {
    ...way,
    ...(source ? { utm_source: source } : {}),
    ...(medium ? { utm_medium: medium } : {}),
    ...(campaign ? { utm_campaign: campaign } : {}),
  };
  const found = byRules(said, rules, destination, source);
  return channel ? { ...found, channel } : found;
}

/** Whether a way tells nothing about the source but the name of a file. */
function isBare(way: Way): boolean {
  return !way.utm_source && !way.utm_medium && !way.utm_campaign && !way.site;
}

/** @param name The source where no rule names one: what was seen, when nothing is said. */
function byRules(way: Way, rules: ChannelRules, destination: Destination, name = seenSource(way)): Source {
  const then = decided(way, rules, destination) ?? decided(way, USUAL_RULES, destination) ?? {};
  return {
    channel: then[SAID.channel] || OTHERWISE,
    source: joinedName(then[SAID.source] || name, rules),
    medium: then[SAID.medium] || (way.utm_medium?.toLowerCase() ?? null),
    campaign: registeredCode(way.utm_campaign, destination.campaignCodes) ?? null,
  };
}

/** The outputs of the rules; null when a rule cannot be read, for example because a value set was removed. */
function decided(way: Way, rules: ChannelRules, destination: Destination): Record<string, string> | null {
  const ready = readyTable(tableOfRules(rules), aroundRules(destination));
  const { defaultCountry, defaultCurrency } = destination;
  const finishing = { defaultCountry, defaultCurrency, payload: {}, answer: () => '' };
  const values = ready.columns.map((column) =>
    columnValue(column, (part) => ('visit' in part ? way[part.visit as WayPart] : undefined), finishing),
  );
  const { then, problem } = decide(ready, values, cellSetting(destination, ANY_TIME));
  return problem === undefined ? (then as Record<string, string>) : null;
}

/** The source name when no rule gives one. */
function seenSource({ sheet, utm_source, utm_campaign, site }: Way): string {
  return sheet ?? utm_source ?? utm_campaign ?? domainOf(site) ?? 'direct';
}
