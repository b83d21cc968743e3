export { isDeeper, isJsonObject, type JsonObject, jsonPointer, type JsonValue, sameJson } from './json';
export { LIMITS } from './limits';
export { error, type Problem } from './problem';
export {
  HOLD_KINDS,
  type HoldKind,
  holdKindOf,
  PROBLEM_CODES,
  type ProblemCode,
  REASON_CODES,
  type ReasonCode,
} from './codes';
export { capitalised, counted, listInWords, nearlySame, shorten, withArticle } from './text';
export {
  type FieldValue,
  type FieldValues,
  isMoney,
  type Link,
  type Money,
  RECORD_KINDS,
  type RecordKind,
  sameValue,
} from './diff/record';
export {
  changesBetween,
  emptyDiff,
  isEmptyDiff,
  type RecordsDiff,
  reverseDiff,
  splitByRecord,
  squashAll,
  stillInForce,
} from './diff/records-diff';
export { type LeftAlone, type PlannedTakeBack, planTakeBack } from './diff/take-back';
export { parseKey } from './payload/key';
export type { PayloadField } from './payload/reading';
export { answerAt, payloadFields } from './payload/fields';
export { isAboutSending } from './payload/about-sending';
export { addAnswer, type BodyFormat, checkPayload, readBody, readPayload } from './payload/body';
export { whoSent } from './payload/who';
export { fieldTypeOf, valueKind, type ValueKind } from './payload/value-kind';
export { searchTerms, submissionWords } from './search/search-words';
export {
  emptyProfile,
  type Profile,
  profileDateOrder,
  type ProfileField,
  profileKind,
  profileLabel,
  ProfileLearner,
} from './payload/profile';
export { type Drift, driftOf } from './payload/drift';
export { taughtByText } from './payload/taught-names';
export {
  COLOUR_MARKS,
  type ColourMark,
  FIELD_TYPES,
  type FieldDefinition,
  type FieldOption,
  type FieldType,
} from './field/field-definition';
export { BUILT_IN_FIELDS } from './field/built-in-fields';
export {
  countedRecords,
  channelOf,
  type Destination,
  type LibraryFile,
  type MessageChannel,
  fieldOf,
  fieldsOf,
  type Pipeline,
  pipelineOf,
  recordWord,
  recordWords,
  type Stage,
  stageOf,
} from './destination/destination';
export { withChoices } from './field/choices';
export { newKey } from './field/new-key';
export { ownFieldKey } from './field/own-key';
export { optionsToAdd } from './field/options-to-add';
export { defaultStageOf, editPipeline, type PipelineEdit } from './destination/edit-pipeline';
export { checkPipeline, STAGE_LIMITS } from './destination/check-pipeline';
export { canBeUnique, checkField, FIELD_LIMITS, hasOptions } from './field/check-field';
export { fieldsFromText, headerRow, suggestedType } from './field/fields-from-text';
export { optionFor, showFieldValue } from './field/field-value';
export { showRecordValue } from './destination/show-record-value';
export { checkFieldValue } from './field/check-value';
export { formatMoney, minorDigits, readMoney } from './reading/money';
export {
  type Clause,
  clausesOf,
  type ConditionOn,
  type FieldPart,
  mapCondition,
  type RecordCondition,
} from './condition/condition';
export { type Compared, type Comparison, foldCase, type NumberComparison } from './condition/comparison';
export type { ConditionSetting } from './condition/condition-test';
export { CONDITION_TESTS, testNamed, testsFor } from './condition/registry';
export { checkCondition, comparedFor, evaluate, firstTestFor } from './condition/evaluate';
export { describeClause, describeCondition } from './condition/describe-condition';
export { nearMiss } from './condition/near-miss';
export { changeType, type HeldValue } from './field/change-type';
export { readiness, type ReadyCheck } from './destination/readiness';
export { checkRate, converted, type ExchangeRate, totalIn } from './destination/rates';
export * from './form/public';
export { type DeliveryStatus, readDeliveryStatus } from './mail/delivery-status';
export { consentWords } from './consent/consent-words';
export type { DocumentRow, MailAttachment } from './mail/mail-attachment';
export { daysToConfirm, MOST_DAYS_TO_CONFIRM } from './mail/days-to-confirm';
export { type MailAttach, THANKS_STARTER } from './effect/kinds/mail';
export { answerText } from './payload/answer-text';
export { type ValueTrace, workOutValue } from './value/work-out-value';
export {
  type MadeActivity,
  type MadeConsent,
  type MadeDocument,
  type MadeTask,
  type PlannedEffect,
  TASK_PRIORITIES,
  type TaskPriority,
} from './effect/effect';
export { EFFECT_KINDS, effectOf } from './effect/registry';
export { withLabelMerged } from './effect/with-label-merged';
export { alwaysAdded } from './effect/kinds/mark';
export { hostOf } from './effect/kinds/post';
export {
  checkMailTemplate,
  MAIL_LIMITS,
  type MailTemplate,
  type MailTexts,
  type MailValues,
  readTranslations,
  type RenderedMail,
  renderMail,
} from './mail/mail-template';
export { dueInWords } from './effect/kinds/task';
export type { SeenField } from './mapping/answer-names';
export { fillFrom, suggestFills, type Suggestion } from './mapping/suggest';
export type { FinisherContext } from './value/finishers/finisher';
export { finisherNamed, FINISHERS } from './value/finishers/registry';
export { finisherParameters } from './value/finishers/parameters';
export { splitPersonName } from './reading/person-name';
export type { DateOrder } from './reading/date-text';
export { normalEmail } from './reading/email';
export { companyNameForm } from './identity/company-name-form';
export { foldWords } from './reading/fold-text';
export { normalPhone, phoneCountries } from './reading/phone';
export { companyDomain, isFreeMailDomain } from './reading/domain';
export {
  type IdentityKey,
  identityKeysOf,
  identityKeyText,
  isExclusive,
  isShareable,
  type UniqueFields,
  uniqueFieldsOf,
  uniqueText,
} from './identity/keys';
export { type MailboxReading, USUAL_MAILBOX_READING } from './reading/mailbox';
export { textDifference, type TextPiece } from './identity/text-difference';
export type { Pattern } from './identity/likeness/agreement';
export { type Around, COMPARED_VALUES, comparedForm, type ComparedRecord } from './identity/likeness/compared';
export { agreements } from './identity/likeness/compared-fields';
export { BLOCK_FIELDS, blocksOf } from './identity/likeness/blocks';
export { BlockIndex, LARGEST_BLOCK } from './identity/likeness/block-index';
export { grownModel, type LikenessModel, startingModel } from './identity/likeness/model';
export { howLikely, likeness, type Likeness } from './identity/likeness/score';
export { percent, shareInWords } from './identity/likeness/words';
export { countPatterns, spreadPairs } from './identity/likeness/pairs';
export { foundPair, type FoundPair, pairsAround } from './identity/likeness/found-pairs';
export { estimateModel } from './identity/likeness/estimate';
export { commonValues } from './identity/likeness/common-values';
export { checkThresholds, type Thresholds, USUAL_THRESHOLDS, verdictOn } from './identity/likeness/thresholds';
export {
  type MergeRules,
  type OriginOf,
  ruleFor,
  SURVIVORSHIP_RULES,
  SURVIVORSHIP_WORDS,
  type SurvivorshipRule,
  USUAL_MERGE_RULES,
} from './identity/survivorship';
export { type MergedField, planMerge, type PlannedMerge } from './merging/plan-merge';
export { planUnmerge } from './merging/plan-unmerge';
export type { SheetRow } from './sheet/sheet';
export { type Encoding, ENCODING_NAMES, ENCODINGS } from './sheet/encodings';
export { readTextFile } from './sheet/read-text-file';
export { aboveHeader, type Cells, rowsByColumn, tableProblem } from './sheet/table-rows';
export { HEAD_ROWS, tableHead } from './sheet/header-row';
export {
  CAMPAIGN_PARAMETERS,
  type CampaignParameter,
  type EarlierVisit,
  readVisit,
  type Visit,
  VISIT_NAMES,
} from './source/visit';
export { type Origin, POSTED } from './source/origin';
export { type Channel, type Source, type Touch, USUAL_CHANNELS } from './source/source';
export { visitsBefore } from './source/earlier-visit';
export { clickIn } from './source/click';
export { type Device, deviceOf } from './source/device';
export {
  type ChannelRule,
  type ChannelRules,
  type IntakeSource,
  type JoinedNames,
  type Way,
  WAY_PARTS,
  type WayPart,
} from './source/channel-rules';
export * from './channel/public';
export * from './campaign/public';
export * from './assignment/public';
export { nobodyTakes } from './route/checking/nobody-takes';
export { againWords, WHEN_MATCHED_WORDS } from './decision/known-words';
export * from './decision/public';
export * from './attribution/public';
export { readValueSetsCsv, valueSetsCsv } from './condition/value-set-csv';
export { cleanValues, VALUE_SET_LIMITS, type ValueSet } from './condition/value-set';
export {
  setsUsed,
  usesOfTable,
  withDecidedOutputChanged,
  withTable,
  withTableRenamed,
} from './route/editing/edit-decisions';
export { withLibraries } from './libraries/library';
export { type FinisherUse, type Part, type Value, VISIT_PART_NAMES_DERIVED } from './value/value';
export type {
  Condition,
  Fill,
  FollowUp,
  Hold,
  MatchRule,
  Place,
  RouteDefinition,
  Safeguard,
  WhenMatched,
  WhenSeveral,
  Write,
} from './definition/route-definition';
export { answerKeys, arrives, templatesNaming, usesAnswer, withAnswerRenamed } from './route/editing/answers';
export { type GivenAnswer, type PlannedAsk } from './hold/hold';
export { HOLD_RULES, holdRuleOf } from './hold/registry';
export { type ApprovalHold, isApproval } from './hold/kinds/approval';
export { CONFIRM_LINK, LINK_TO_COME, namesLink, UNSUBSCRIBE_LINK, withLink } from './mail/mail-links';
export { CONFIRM_STARTER, type ConfirmationHold, isConfirmation } from './hold/kinds/confirmation';
export { ownerRuleShape } from './definition/shapes';
export { ROUTE_SCHEMA } from './route/editing/schema';
export type { RouteSurroundings } from './route/checking/surroundings';
export { readRoute } from './route/editing/read-route';
export { fixedText } from './definition/fixed-text';
export { checkRoute, hasErrors } from './route/checking/check';
export { notBuiltYet } from './route/checking/not-built';
export { type PlaceKeys, placesNamed, replacePlace } from './route/checking/places';
export { feedsField, type FieldKeys, moveFill } from './route/editing/move-fill';
export type { Submission } from './payload/submission';
export { submissionReader } from './route/planning/part-reader';
export type { KnownRecord } from './diff/known-record';
export { KnownRecords } from './identity/known-records';
export { type Block, type ComparingLookups, type Lookups, lookupsFor, lookupsText } from './route/planning/lookups';
export { type Sought, worthKnowing } from './route/planning/sought';
export type {
  CandidateShare,
  FieldTrace,
  MatchCandidate,
  NewOption,
  Plan,
  PlannedRunMerge,
  PlannedWrite,
} from './route/planning/plan';
export { stageValues } from './route/planning/plan-place';
export type { MatchAnswer } from './route/planning/plan-match';
export { recognitionOf, rulesFor } from './route/checking/recognition';
export { matchInWords } from './route/telling/why';
export { planRun } from './route/planning/plan-run';
export { rehearse, type RehearsedPlan } from './route/comparing/rehearse';
export { planFillIn } from './route/comparing/fill-in';
export { sharingFills } from './route/editing/share-fills';
export { type UnmappedAnswer, unmappedAnswers, withTranslation } from './route/planning/unmapped';
export { accountOf, type AccountStep, outcomeText } from './route/telling/account';
export { wouldDo } from './route/telling/would-do';
export {
  conditionInWords,
  describeRoute,
  fieldLabel,
  requiredUnfed,
  type RouteInWords,
  RULE_WORDS,
} from './route/telling/describe';
export { conditionReader, conditionSetting, partLabel } from './route/editing/route-conditions';
export { routeChanges } from './route/planning/changes';
export { whatItDoes } from './route/telling/what-it-does';
export { senderNames } from './route/editing/sender-names';
export { comparePlans, type PlanDifference } from './route/comparing/compare-plans';
export { mergeDrafts } from './route/editing/merge-drafts';
export { addedWrite, ROUTE_OUTLINES, routeFromOutline, type RouteOutline, usualOutline } from './mapping/outlines';
export { adoptRoute } from './route/editing/adopt-route';
export type { Team } from './people/team';
export { type Availability, type DueIn, dueAt, workBetween } from './people/working-time';
export {
  type AwayDates,
  checkHours,
  checkPerson,
  type Person,
  type Weekday,
  WEEKDAY_NAMES,
  WEEKDAYS,
  type WorkingHours,
} from './people/person';
export {
  canGroupBy,
  canSortBy,
  checkView,
  listedFields,
  type ListSort,
  type ListView,
  readSort,
  replaceStageInView,
  viewNamesField,
  viewNamesStage,
  writeSort,
} from './record/list-view';
export { withoutMisfits } from './record/without-misfits';
export {
  CHANNEL_WORDS,
  CONSENT_CHANNELS,
  CONSENT_STATES,
  type ConsentChannel,
  type ConsentState,
} from './consent/consent';
export { missingFields, planEdit, type PlannedEdit, type RecordEdit } from './record/plan-edit';
export { closedLead, planQualify, type Qualifying, qualifyingRoute, type QualifyPlan } from './record/qualify';
export { INTAKE_KINDS, intakeKind } from './intake/registry';
export type { IntakeKind } from './intake/intake-kind';
export { couldNotWrite, heldByPause, PAUSED, unreadable } from './route/planning/not-planned';
