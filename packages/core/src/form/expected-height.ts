import { isQuestion, stepsOf, type FormDefinition, type FormItem } from './definition';
import { languagesOf } from './localise';
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
  if (!isQuestion(item)) return contentHeight(item.type, item.text) + gap;
  if (item.type === 'hidden') return 0;
  return questionHeight(item.type, item.shownAs, item.options?.length ?? 0) + (item.help ? HELP : 0) + gap;
}

function questionHeight(type: FormItem['type'], shownAs: string | undefined, options: number): number {
  switch (type) {
    case 'long-text':
      return 146;
    case 'address':
      return 267;
    case 'yes-no':
      return 92;
    case 'consent':
      return 34;
    case 'several-of':
      return 28 + options * 33;
    case 'one-of':
      return shownAs === 'radios' || shownAs === 'cards' ? 28 + options * 33 : 74;
    default:
      return 74;
  }
}

function contentHeight(type: FormItem['type'], text: string | undefined): number {
  switch (type) {
    case 'heading':
      return STEP_TITLE;
    case 'text-block':
      return linesOf(text ?? '') * LINE;
    case 'divider':
      return 1;
    case 'social':
      return LINE;
    default:
      return 240;
  }
}

function linesOf(text: string): number {
  return text.split('\n').reduce((sum, line) => sum + Math.max(1, Math.ceil(line.length / LINE_CHARACTERS)), 0);
}
