import { plainName } from '../channel/names';
import { editDistance } from '../identity/comparators/damerau-levenshtein';

/** Shorter codes are not compared: too many would be alike. */
const SHORTEST = 5;
const MOST_SLIPS = 2;
/** Longer texts are not compared. */
const LONGEST = 200;

/** The campaign whose code or name is nearest to a text, at most two typing errors away; undefined when there is none. */
export function nearestCampaign<One extends { code: string; name: string }>(
  said: string,
  campaigns: readonly One[],
): One | undefined {
  if (said.length > LONGEST) return undefined;
  const plain = plainName(said);
  if (plain.length < SHORTEST) return undefined;
  let nearest: { campaign: One; slips: number } | undefined;
  for (const campaign of campaigns) {
    for (const text of [campaign.code, campaign.name]) {
      const slips = editDistance(plain, plainName(text), MOST_SLIPS);
      if (slips <= MOST_SLIPS && slips < (nearest?.slips ?? Infinity)) nearest = { campaign, slips };
    }
  }
  return nearest?.campaign;
}
