import { clausesOf } from '../condition/condition';
import { evaluate, type ConditionReader } from '../condition/evaluate';
import type { ConditionSetting } from '../condition/condition-test';
import type { FieldValue } from '../diff/record';
import { isQuestion, questionsOf, type FormDefinition, type FormItem, type QuestionPart } from './definition';
import { questionType } from './question-types/registry';

/** What conditions of a form may know: nobody looks, and no teams are known in public. */
export const FORM_CONDITIONS: ConditionSetting = { now: '', defaultCurrency: 'EUR', teams: {} };

/** How a condition of a form is read: the types of the questions and the values of their answers. */
export function questionReader(
  form: Pick<FormDefinition, 'items'>,
  valueOf: (name: string) => FieldValue | null,
): ConditionReader<QuestionPart> {
  const types = new Map(questionsOf(form).map(({ name, type }) => [name, questionType(type).holds]));
  return { typeOf: ({ question }) => types.get(question), valueOf: ({ question }) => valueOf(question) };
}

/**
 * The names of the items that are shown with these answers. A question that is not shown has no answer for the
 * conditions of others. Conditions in a circle are never met.
 */
export function shownItems(
  form: Pick<FormDefinition, 'items'>,
  answerOf: (name: string) => FieldValue | null,
): ReadonlySet<string> {
  const items = new Map(form.items.map((item) => [item.name, item]));
  const decided = new Map<string, boolean | 'asking'>();
  const reader = questionReader(form, (name) => (isShown(name) ? answerOf(name) : null));
  function isShown(name: string): boolean {
    const known = decided.get(name);
    if (known !== undefined) return known === true;
    decided.set(name, 'asking');
    const condition = items.get(name)?.shownWhen;
    const shown = items.has(name) && (!condition || evaluate(condition, reader, FORM_CONDITIONS).met);
    decided.set(name, shown);
    return shown;
  }
  const shown = new Set<string>();
  let stepShown = true;
  for (const item of form.items) {
    if (item.type === 'step') stepShown = isShown(item.name);
    if (stepShown && isShown(item.name)) shown.add(item.name);
  }
  return shown;
}

/** The questions that an item waits for. */
export function waitsFor(item: FormItem): string[] {
  return item.shownWhen ? [...new Set(clausesOf(item.shownWhen).map(({ of }) => of.question))] : [];
}

/** The first circle of questions that wait for each other, in order; `null` when there is none. */
export function circleOf(form: Pick<FormDefinition, 'items'>): string[] | null {
  const items = new Map(form.items.filter(isQuestion).map((item) => [item.name, item]));
  const done = new Set<string>();
  const walk = (name: string, way: readonly string[]): string[] | null => {
    const at = way.indexOf(name);
    if (at !== -1) return way.slice(at);
    if (done.has(name)) return null;
    const item = items.get(name);
    for (const next of item ? waitsFor(item) : []) {
      const circle = walk(next, [...way, name]);
      if (circle) return circle;
    }
    done.add(name);
    return null;
  };
  for (const name of items.keys()) {
    const circle = walk(name, []);
    if (circle) return circle;
  }
  return null;
}
