import type { JsonObject } from '../json';
import { answerAsText } from './check-answers';
import { questionsOf, type FormDefinition } from './definition';

/** A text with `{name}` replaced by the answer to the question of that name; an unknown or unanswered one leaves nothing. */
export function filledIn(text: string, form: FormDefinition, answers: JsonObject): string {
  const questions = new Map(questionsOf(form).map((question) => [question.name, question]));
  return text
    .replace(/\{([a-z][a-z0-9_]*)\}/g, (_, name: string) => {
      const answer = answerAsText(answers[name]);
      return questions.get(name)?.options?.find(({ value }) => value === answer)?.label ?? answer;
    })
    .replace(/(?<! ) +([,.!?])/g, '$1');
}
