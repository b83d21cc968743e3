/** The public exports about channels and sources. */
export { campaignCodes, type CampaignCodes, isKeptApart, joinedName, plainName } from './names';
export { CHANNEL_RULE_LIMITS, readChannelRules, readIntakeSource } from './read-rules';
export { aroundRules, partsAsked, rulesOfTable, tableOfParts, WAY_PART_LABELS } from './rules-table';
export { MOST_COMPARED, type NamedSource, similarNames } from './similar-names';
export { sourceOf, sourceOfWay } from './source-of';
export { USUAL_RULES } from './usual-rules';
export { wayBefore, wayOf } from './way';
