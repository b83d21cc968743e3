import { isJsonObject, type JsonValue } from '../json';
import { storableText } from '../text';
import { payloadFields } from './fields';

/**
 * An answer as text: a list has one item a line, an object one `name: value` a line. Nothing is cut.
 */
export function answerText(answer: JsonValue | undefined): string {
  if (answer === undefined || answer === null) return '';
  if (typeof answer === 'string') return storableText(answer);
  if (typeof answer !== 'object') return String(answer);
  if (Array.isArray(answer) && answer.every((item) => item === null || typeof item !== 'object')) {
    return answer.map(answerText).filter(Boolean).join('\n');
  }
  const lines = payloadFields(isJsonObject(answer) ? answer : { list: answer }).map(
    ({ key, value }) => `${key}: ${answerText(value)}`,
  );
  return storableText(lines.join('\n'));
}
