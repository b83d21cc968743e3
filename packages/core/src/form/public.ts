/** What of forms is for others, by name. */
export { CONFIRM_LANGUAGES, confirmWords } from './confirm-words';
export {
  type AfterSending,
  type AnswerChecks,
  type AnswerOption,
  type Content,
  CONTENT_TYPES,
  type ContentTypeName,
  type FormCondition,
  type FormDefinition,
  type FormItem,
  isQuestion,
  type Question,
  QUESTION_TYPES,
  type QuestionPart,
  questionsOf,
  type QuestionTypeName,
  stepsOf,
} from './definition';
export { formShape } from './form-shape';
export { FORM_LANGUAGES, formWords, type FormWords, withLimit } from './form-words';
export { QUESTION_TYPE_LIST, questionType } from './question-types/registry';
export { answerAsText, type AnsweredFile, checkAnswers, type RefusedAnswer } from './check-answers';
export { answeredPayload, answeredVersion, ENTRY, joinedAnswers } from './answered-payload';
export { fitsEnding, isHiddenProgram, pictureType } from './file-content';
export { bestLanguage, languagesOf, localised, textsOf } from './localise';
export { filledIn } from './thank-text';
export { type Blocked, OPENED, SET_ASIDE_FROM, type Suspicion, suspicionOf, TRAP } from './suspicion';
export { checkTheme, inColoursOf, PLAIN_THEME, SPACING, type Theme, THEME_FONTS, type ThemeFont } from './theme';
export { askableFields, asksForField, followFields, questionFor } from './field-question';
export { editForm, formChanges, type FormEdit, newItemName } from './edit-form';
export { whyNotNamed } from './rename-item';
export { listLines, nextOption, optionsFromLines } from './option-lines';
export { wishOfRoute } from './wish-of-route';
export { checkForm, siteToAllow } from './check-form';
export { figuresBy, figuresOf, type FormDid, type FormFigures, type FormTally, stopsOf } from './form-figures';
export { expectedHeight } from './expected-height';
export { exampleAnswers } from './example-answers';
export { whoAnswered } from './who-answered';
export { pathOnOwnDomain, proofRecord, readDomain } from './own-domain';
export { compareVersions, FEWEST_VIEWS, type VersionComparison } from './version-comparison';
export { type FormRouteWish, offeredFills, routeFromForm } from './form-route';
export { formFunnel, type FormOutcome, type FormStep } from './form-funnel';
