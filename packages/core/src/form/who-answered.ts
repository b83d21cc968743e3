import type { JsonObject } from '../json';
import { whoSent } from '../payload/who';
import { shorten } from '../text';
import { answerAsText } from './check-answers';
import { questionsOf, type FormDefinition } from './definition';

/**
 * Who a form's answers are about, by the fields of contacts and leads that its questions ask for: their name, or else
 * their e-mail. Where none is asked for, what the payload itself tells.
 */
export function whoAnswered(form: Pick<FormDefinition, 'items'>, payload: JsonObject): string {
  const answerTo = (field: string, records: readonly string[]) => {
    const question = questionsOf(form).find(({ feeds }) => feeds?.field === field && records.includes(feeds.record));
    return question ? answerAsText(payload[question.name]) : '';
  };
  const parts = ['first_name', 'last_name'].map((field) => answerTo(field, ['contact'])).filter((part) => part !== '');
  const named = answerTo('full_name', ['contact']) || parts.join(' ') || answerTo('name', ['lead']);
  const { who, email } = whoSent(payload);
  return shorten(named, 120) || who || email;
}
