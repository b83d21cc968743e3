import { answerAsText, type FormWords, type JsonValue, type Question } from '@haycart/core';
import { attributes, escape } from './html';
import { phoneHtml } from './phone-html';

/** One question as it is asked: its words, its help, what to answer with, and what is wrong with the answer. */
export function questionHtml(
  question: Question,
  answer: JsonValue | undefined,
  refused: string | undefined,
  words: FormWords,
): string {
  const { name, type } = question;
  const text = answerAsText(answer ?? (type === 'hidden' ? undefined : question.value));
  if (type === 'hidden') return `<input type="hidden"${attributes({ name, value: text || question.value || '' })}>`;
  const help = question.help ? `<span class="help" id="h-${name}">${escape(question.help)}</span>` : '';
  const error = `<span class="error" id="e-${name}"${refused ? '' : ' hidden'}>${escape(refused ?? '')}</span>`;
  const shared = {
    'aria-describedby': [question.help && `h-${name}`, refused && `e-${name}`].filter(Boolean).join(' ') || null,
    'aria-invalid': refused ? 'true' : null,
  };
  const optional = question.required ? '' : ` <span class="optional">${escape(words.optional)}</span>`;
  if (type === 'consent')
    return `<label><input type="checkbox" value="yes"${attributes({ id: `q-${name}`, name, required: question.required, checked: text !== '', ...shared })}><span>${escape(question.label)}</span></label>${help}${error}`;
  if (isGroup(question))
    return `<fieldset${attributes({ id: `q-${name}`, tabindex: -1, ...shared })}><legend>${escape(question.label)}${optional}</legend>${help}${groupHtml(question, answer, words)}</fieldset>${error}`;
  const control = controlHtml(
    question,
    text,
    { id: `q-${name}`, name, required: question.required, placeholder: question.placeholder, ...shared },
    words,
  );
  return `<label for="q-${name}">${escape(question.label)}${optional}</label>${help}${control}${error}`;
}

function isGroup({ type, shownAs }: Question): boolean {
  return (
    type === 'several-of' ||
    type === 'yes-no' ||
    type === 'address' ||
    (type === 'one-of' && (shownAs === 'radios' || shownAs === 'cards'))
  );
}

function groupHtml(question: Question, answer: JsonValue | undefined, words: FormWords): string {
  const { name, type, shownAs, options = [] } = question;
  if (type === 'address') return addressHtml(question, answerAsText(answer), words);
  const given = (Array.isArray(answer) ? answer : [answer ?? question.value]).map(answerAsText);
  const choices =
    type === 'yes-no'
      ? [
          { value: 'yes', label: words.yes },
          { value: 'no', label: words.no },
        ]
      : options;
  const kind = type === 'several-of' ? 'checkbox' : 'radio';
  const look = shownAs === 'cards' ? 'cards' : 'choices';
  return `<div class="${look}">${choices
    .map(
      ({ value, label }) =>
        `<label><input type="${kind}"${attributes({ name, value, checked: given.includes(value), required: kind === 'radio' && question.required })}><span>${escape(label)}</span></label>`,
    )
    .join('')}</div>`;
}

/** One field a line of the address; what is sent is one text with a line each, put together by the server or the script. */
function addressHtml({ name, required, country }: Question, answer: string, words: FormWords): string {
  const lines = answer.split('\n');
  const parts = [
    [words.street, 'address-line1'],
    [words.postcode, 'postal-code'],
    [words.town, 'address-level2'],
    [words.country, 'country-name'],
  ] as const;
  return `<div class="postal">${parts
    .map(
      ([label, autocomplete], at) =>
        `<label>${escape(label)}<input type="text"${attributes({ name: `${name}[]`, autocomplete, required: required && at !== 3, value: lines[at] ?? (at === 3 && country ? (new Intl.DisplayNames([words.language], { type: 'region' }).of(country) ?? '') : '') })}></label>`,
    )
    .join('')}</div>`;
}

type ControlAttributes = Parameters<typeof attributes>[0];

function controlHtml(question: Question, text: string, given: ControlAttributes, words: FormWords): string {
  const { type, options = [], checks = {}, currency } = question;
  const input = (kind: string, more: ControlAttributes = {}) =>
    `<input type="${kind}"${attributes({ ...more, ...given, value: text })}>`;
  const length = { maxlength: checks.longest, minlength: checks.shortest };
  switch (type) {
    case 'email':
      return input('email', { autocomplete: 'email', inputmode: 'email' });
    case 'phone':
      return question.asksCountry
        ? phoneHtml(question, text, given, words)
        : input('tel', { autocomplete: 'tel', inputmode: 'tel' });
    case 'web':
      return input('text', { autocomplete: 'url', inputmode: 'url' });
    case 'whole-number':
      return input('text', { inputmode: 'numeric' });
    case 'decimal':
      return input('text', { inputmode: 'decimal' });
    case 'money':
      return `<span class="amount">${currency ? `<span aria-hidden="true">${escape(currency)}</span>` : ''}${input('text', { inputmode: 'decimal' })}</span>`;
    case 'date':
      return input('date', { min: checks.least, max: checks.most });
    case 'file':
      return `<input type="file"${attributes({ ...given, accept: checks.fileTypes?.map((ending) => `.${ending}`).join(',') })}>`;
    case 'long-text':
      return `<textarea rows="5"${attributes({ ...length, ...given })}>${escape(text)}</textarea>`;
    case 'one-of':
      return `<select${attributes(given)}><option value="">${escape(words.choose)}</option>${options
        .map(
          ({ value, label }) => `<option${attributes({ value, selected: value === text })}>${escape(label)}</option>`,
        )
        .join('')}</select>`;
    default:
      return input('text', { ...length, autocomplete: AUTOCOMPLETE[question.feeds?.field ?? question.name] });
  }
}

/** What browsers can fill in by themselves (HTML, autofill field names). */
const AUTOCOMPLETE: Record<string, string> = {
  first_name: 'given-name',
  last_name: 'family-name',
  full_name: 'name',
  name: 'name',
  organisation: 'organization',
  company: 'organization',
  job_title: 'organization-title',
};
