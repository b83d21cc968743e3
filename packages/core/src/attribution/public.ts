/** What of sharing out credit is for others, by name. */
export { apportion } from './apportion';
export type { CreditModel, CreditSettings } from './credit-model';
export {
  ADDED,
  COUNTED,
  CREDITED,
  creditTree,
  daysToWon,
  type Figure,
  type Figures,
  type SourceLeaf,
  type SourceNode,
} from './credit-tree';
export { CREDIT_MODELS, creditModel } from './models/registry';
export type { JourneyPath } from './removal/chain';
export { creditedByRemoval } from './removal/credited-by-removal';
export { dataDriven, type DataDriven, type RemovalShare } from './removal/removal-effect';
export { mailedReport, type MailedReport } from './mailed-report';
export { comparedDays, daysOf, REPORT_PERIODS, USUAL_PERIOD, type Days } from './report-period';
export { whatChanged, type ComparedSource } from './what-changed';
export { creditedMonths, type MonthShare } from './columns/credited-months';
export { creditedRecords, type CreditedRecord } from './columns/credited-records';
export { creditedSums, peopleSums, type PartOf } from './columns/credited-sums';
export type { CreditWish } from './columns/each-deal';
export { JOURNEY_KINDS, JourneyColumns, type JourneyPortion } from './columns/journey-columns';
export { LAST_LEVEL, type SourceSums } from './columns/sums-by-source';
export { worthIn } from './columns/worth';
