import { isQuestion, stepsOf, type ContentTypeName, type FormDefinition, type FormItem } from './definition';
import { languagesOf } from './localise';
import { questionType } from './question-types/registry';
import { SPACING, type Theme } from './theme';

/** Pixels, as the style of forms has them at about 640 px of width. */
const AROUND = 44;
const TITLE = 44;
const LINE = 24;
const LINE_CHARACTERS = 80;
const LANGUAGES = 36;
const PROGRESS = 53;
const STEP_TITLE = 38;
const HELP = 20;
const BUTTONS = 46;

/**
 * How high a form will be before anything is answered, in pixels: its title and the first page of its questions. It is an
 * estimate, for the frame around a form whose own page is not there yet.
 */
export function expectedHeight(form: FormDefinition, spacing: Theme['spacing'] = 'usual'): number {
  const steps = stepsOf(form);
  const { step, items } = steps[0]!;
  const shown = items.filter(({ shownWhen }) => !shownWhen);
  return (
    AROUND +
    TITLE +
    (languagesOf(form).length > 1 ? LANGUAGES : 0) +
    (form.intro ? linesOf(form.intro) * LINE + 28 : 0) +
    (steps.length > 1 ? PROGRESS : 0) +
    (step?.text ? STEP_TITLE : 0) +
    shown.reduce((sum, item) => sum + heightOf(item, SPACING[spacing]), 0) +
    BUTTONS
  );
}

function heightOf(item: FormItem, gap: number): number {
  if (!isQuestion(item)) return CONTENT_HEIGHTS[item.type](item.text ?? '') + gap;
  const height = questionType(item.type).height(item);
  return height ? height + (item.help ? HELP : 0) + gap : 0;
}

/** Pictures and films, before they have come. */
const PICTURE = () => 240;
const CONTENT_HEIGHTS: Record<ContentTypeName, (text: string) => number> = {
  step: () => STEP_TITLE,
  heading: () => STEP_TITLE,
  'text-block': (text) => linesOf(text) * LINE,
  divider: () => 1,
  social: () => LINE,
  image: PICTURE,
  video: PICTURE,
  gallery: PICTURE,
  logos: PICTURE,
  html: PICTURE,
};

function linesOf(text: string): number {
  return text.split('\n').reduce((sum, line) => sum + Math.max(1, Math.ceil(line.length / LINE_CHARACTERS)), 0);
}
