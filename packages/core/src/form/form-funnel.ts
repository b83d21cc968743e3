import { questionsOf, type FormDefinition } from './definition';
import { figuresOf, stopsOf, type FormTally } from './form-figures';

/** What became of the submissions of a form. */
export interface FormOutcome {
  /** How many wrote something that still stands. */
  written: number;
  /** How many touched a deal that was won. */
  won: number;
}

/** One step from looking at a form to a won deal. */
export interface FormStep {
  what: 'view' | 'start' | 'question' | 'gone' | 'send' | 'written' | 'won';
  /** Of a question its name; else blank. */
  name: string;
  /** How many came as far. */
  count: number;
  /** How many of them came no further in the form. */
  left: number;
}

/**
 * Returns the steps of a form in their order: looked, began, came to each question, sent, written, won. Visitors who left at a
 * question that was removed since have a step of their own, before `send`.
 */
export function formFunnel(
  tallies: readonly FormTally[],
  form: Pick<FormDefinition, 'items'>,
  { written, won }: FormOutcome,
): FormStep[] {
  const { views, starts, sends } = figuresOf(tallies);
  const stops = stopsOf(tallies);
  // Nobody can leave at what is not shown.
  const questions = questionsOf(form).filter(({ type }) => type !== 'hidden');
  let came = starts;
  const asked = questions.map(({ name }): FormStep => {
    const left = Object.hasOwn(stops, name) ? stops[name]! : 0;
    const step: FormStep = { what: 'question', name, count: came, left };
    came = Math.max(0, came - left);
    return step;
  });
  const named = new Set(questions.map(({ name }) => name));
  const gone = Object.entries(stops).reduce((sum, [name, count]) => sum + (named.has(name) ? 0 : count), 0);
  const step = (what: FormStep['what'], count: number, left = 0): FormStep => ({
    what,
    name: '',
    count,
    left,
  });
  return [
    step('view', views, Math.max(0, views - starts)),
    step('start', starts),
    ...asked,
    ...(gone ? [step('gone', came, gone)] : []),
    step('send', sends),
    step('written', written),
    step('won', won),
  ];
}
