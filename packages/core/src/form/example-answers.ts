import type { JsonObject } from '../json';
import { questionsOf, type FormDefinition, type Question } from './definition';
import { questionType } from './question-types/registry';

/** What somebody might answer where the field says more than the type of question does. */
const BY_FIELD: Readonly<Record<string, string>> = {
  first_name: 'Ada',
  last_name: 'Weir',
  full_name: 'Ada Weir',
  name: 'Fennwick Academy',
};

/** Made-up answers to every question of a form but files, by name, so that a rehearsal shows all that it can write. */
export function exampleAnswers(form: FormDefinition): JsonObject {
  const asked = questionsOf(form).filter(({ type }) => type !== 'file');
  return Object.fromEntries(asked.map((question) => [question.name, exampleAnswer(question)]));
}

function exampleAnswer(question: Question): string | string[] {
  const { name, type, options, value, feeds, label } = question;
  const { holds, example } = questionType(type);
  if (options) {
    const first = options.slice(0, 2).map((option) => option.value);
    return holds === 'several-of' ? first : (first[0] ?? '');
  }
  if (value !== undefined) return value;
  const [given] = example.takes;
  if (holds === 'money' && question.currency) return `${question.currency} 48,000`;
  if (type !== 'text') return given;
  return BY_FIELD[feeds?.field ?? name] ?? `${label} as typed`;
}
