/** The public exports about campaigns. */
export { buildLink } from './build-link';
export { type Campaign, type LinkParameters, PARAMETER_LABELS } from './campaign';
export { daysBetween, MOST_COST_DAYS, spreadCost } from './cost';
export { type CostRow, type CostsRead, MOST_COST_ROWS, readCostsCsv, refusedInWords } from './costs-csv';
export { asRulesWant, checkLink, LINK_LIMITS, type LinkRules, USUAL_LINK_RULES } from './link-rules';
export { nearestCampaign } from './nearest-campaign';
export { linksFromRows, type LinkWish } from './links-from-rows';
