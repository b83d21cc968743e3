import { clausesOf } from '../condition/condition';
import { checkCondition } from '../condition/evaluate';
import type { Destination } from '../destination/destination';
import { fieldOf } from '../destination/destination';
import { optionFor } from '../field/field-value';
import { jsonPointer } from '../json';
import { error, warning, type Problem } from '../problem';
import { listInWords } from '../text';
import { isQuestion, questionsOf, stepsOf, type FormDefinition, type FormItem, type Question } from './definition';
import { itemLabel } from './edit-form';
import { questionType } from './question-types/registry';
import { circleOf, FORM_CONDITIONS, questionReader, waitsFor } from './visibility';

/** Everything that is wrong with a form of the right shape. Errors stand in the way of publishing; warnings do not. */
export function checkForm(form: FormDefinition, destination: Pick<Destination, 'fields'>): Problem[] {
  return [
    ...checkCircle(form),
    ...form.items.flatMap((item, index) => checkItem(item, index, form, destination)),
    ...checkWhole(form),
  ];
}

function checkCircle(form: FormDefinition): Problem[] {
  const circle = circleOf(form);
  if (!circle) return [];
  const labels = circle.map((name) => `“${itemLabel(form.items.find((item) => item.name === name)!)}”`);
  const text =
    labels.length === 1
      ? `${labels[0]} waits for its own answer, so it is never asked.`
      : `${listInWords(labels)} wait for each other in a circle, so none of them is ever asked.`;
  return [error('conditions-in-a-circle', text, '/items')];
}

function checkItem(
  item: FormItem,
  index: number,
  form: FormDefinition,
  destination: Pick<Destination, 'fields'>,
): Problem[] {
  return [...checkShownWhen(item, index, form), ...(isQuestion(item) ? checkQuestion(item, index, destination) : [])];
}

function checkShownWhen(item: FormItem, index: number, form: FormDefinition): Problem[] {
  if (!item.shownWhen) return [];
  const at = ['items', index, 'shownWhen'];
  const problems = checkCondition(
    item.shownWhen,
    questionReader(form, () => null),
    FORM_CONDITIONS,
    at,
  ).map((problem) => ({ ...problem, text: `“${itemLabel(item)}” is never shown: ${problem.text}` }));
  const order = form.items.map(({ name }) => name);
  const later = waitsFor(item).filter((name) => order.indexOf(name) > index);
  if (later.length)
    problems.push(
      warning(
        'waits-for-later',
        `“${itemLabel(item)}” waits for an answer that is only asked after it.`,
        jsonPointer(at),
      ),
    );
  return [...problems, ...unknownOptions(item, form, jsonPointer(at))];
}

/** Options that a condition waits for and that the question does not have: then it can never be met. */
function unknownOptions(item: FormItem, form: FormDefinition, at: string): Problem[] {
  const questions = new Map(questionsOf(form).map((question) => [question.name, question]));
  return clausesOf(item.shownWhen!).flatMap(({ of, test, value }) => {
    const { options } = questions.get(of.question) ?? {};
    if (!options || test === 'is-none-of') return [];
    const wanted = [value].flat().filter((one): one is string => typeof one === 'string');
    const unknown = wanted.filter((key) => !options.some((option) => option.value === key));
    return wanted.length && unknown.length === wanted.length
      ? [
          error(
            'never-shown',
            `“${itemLabel(item)}” is never shown: it waits for ${listInWords(unknown, 'or')}, which “${itemLabel(questions.get(of.question)!)}” does not offer.`,
            at,
          ),
        ]
      : [];
  });
}

function checkQuestion(question: Question, index: number, destination: Pick<Destination, 'fields'>): Problem[] {
  const problems: Problem[] = [];
  const at = jsonPointer(['items', index]);
  const { type, label, feeds, options = [] } = question;
  for (const { code, severity, text, at: property } of questionType(type).flaws?.(question) ?? [])
    problems.push(
      (severity === 'error' ? error : warning)(
        code,
        `“${itemLabel(question)}” ${text}`,
        property ? `${at}/${property}` : at,
      ),
    );
  if (type !== 'hidden' && !label.trim() && !feeds)
    problems.push(error('no-label', 'A question has no words. Say what it asks.', `${at}/label`));
  if (!feeds) return problems;
  const field = fieldOf({ ...EMPTY, ...destination }, feeds.record, feeds.field);
  if (!field)
    return [
      ...problems,
      error(
        'unknown-field',
        `“${itemLabel(question)}” asks for a field of the ${feeds.record} that is not there any more.`,
        `${at}/feeds`,
      ),
    ];
  const strange = field.options ? options.filter(({ value: key }) => !optionFor(field.options!, key)) : [];
  if (strange.length)
    problems.push(
      warning(
        'unknown-option',
        `${field.label} has no option ${listInWords(strange.map(({ label: words }) => `“${words}”`))}, so no route understands it.`,
        `${at}/options`,
      ),
    );
  return problems;
}

const EMPTY = { fields: [], pipelines: [], defaultCountry: '', defaultCurrency: '' };

function checkWhole(form: FormDefinition): Problem[] {
  const problems: Problem[] = [];
  const questions = questionsOf(form).filter(({ type }) => type !== 'hidden');
  if (!questions.length) problems.push(error('no-question', 'The form asks nothing. Add a question.', '/items'));
  stepsOf(form).forEach(({ step, items }) => {
    if (step && !items.some((item) => isQuestion(item) && item.type !== 'hidden'))
      problems.push(
        warning(
          'empty-step',
          `The step “${itemLabel(step)}” asks nothing.`,
          jsonPointer(['items', form.items.indexOf(step)]),
        ),
      );
  });
  if (form.after.do === 'redirect' && originOf(form.after.to) === null)
    problems.push(error('not-an-address', 'Sending leads on to no address that there can be.', '/after/to'));
  const site = siteToAllow(form);
  if (site)
    problems.push(
      error(
        'leads-elsewhere',
        `Sending leads on to ${site}, which is not among the sites that this form may lead to.`,
        '/after/to',
      ),
    );
  return problems;
}

/** The site that sending leads on to and that has to be allowed first; null where there is none. */
export function siteToAllow({ after, mayLeadTo = [] }: Pick<FormDefinition, 'after' | 'mayLeadTo'>): string | null {
  const site = after.do === 'redirect' ? originOf(after.to) : null;
  return site && site !== 'null' && !mayLeadTo.includes(site) ? site : null;
}

function originOf(address: string): string | null {
  try {
    const { origin, hostname } = new URL(address);
    return hostname ? origin : null;
  } catch {
    return null;
  }
}
