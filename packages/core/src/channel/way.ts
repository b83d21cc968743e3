import { answerText } from '../payload/answer-text';
import { answerAt } from '../payload/fields';
import type { Submission } from '../payload/submission';
import type { IntakeSource, Way } from '../source/channel-rules';
import { deviceOf } from '../source/device';
import { pathOf, referringSite } from '../source/site';
import { CAMPAIGN_PARAMETERS, type EarlierVisit } from '../source/visit';
import { shorten, storableText } from '../text';

/** The longest `said` text that is kept, in characters. */
const LONGEST_SAID = 200;

/** The source settings of intakes, by intake key. */
export type IntakeSources = Readonly<Record<string, IntakeSource>>;

/** The way of a submission. */
export function wayOf(
  {
    intake,
    visit,
    origin,
    payload,
  }: Pick<Submission, 'intake' | 'visit' | 'origin'> & Partial<Pick<Submission, 'payload'>>,
  intakes: IntakeSources = {},
): Way {
  const way: Way = { intake };
  const keep = (part: keyof Way, value: string | null | undefined) => {
    if (value && !way[part]) way[part] = storableText(value);
  };
  for (const name of CAMPAIGN_PARAMETERS) keep(name, visit[name]);
  const site = referringSite(visit.referrer, visit.page);
  keep('site', site);
  if (visit.referrer && !site) keep('within', 'yes');
  keep('click', visit.click);
  keep('page', pathOf(visit.page));
  keep('landing', pathOf(visit.landing));
  keep('sheet', origin?.sheet);
  keep('country', visit.country);
  if (visit.userAgent) keep('device', deviceOf(visit.userAgent));
  const { answers = {} } = own(intakes, intake) ?? {};
  for (const [part, key] of Object.entries(answers)) {
    const said = payload && answerText(answerAt(payload, key)).trim();
    if (said) keep(part as keyof Way, shorten(said, LONGEST_SAID));
  }
  return way;
}

/** The way of an earlier visit. The intake's own source does not apply to it. */
export function wayBefore({ visit }: EarlierVisit): Way {
  const { intake: _, ...way } = wayOf({ intake: '', visit });
  return way;
}

/** The source settings of an intake. */
export function own(intakes: IntakeSources, intake: string | undefined): IntakeSource | undefined {
  return intake !== undefined && Object.hasOwn(intakes, intake) ? intakes[intake] : undefined;
}
