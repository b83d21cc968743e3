import { answerAsText, type FormWords, type JsonValue, type Question, type QuestionTypeName } from '@haycart/core';
import { attributes, markup, type Html } from './html';
import { phoneHtml } from './phone-html';

/** One question as it is asked: its words, its help, what to answer with, and what is wrong with the answer. */
export function questionHtml(
  question: Question,
  answer: JsonValue | undefined,
  refused: string | undefined,
  words: FormWords,
): Html {
  const { name, type } = question;
  const text = answerAsText(answer ?? (type === 'hidden' ? undefined : question.value));
  if (type === 'hidden')
    return markup`<input type="hidden"${attributes({ name, value: text || question.value || '' })}>`;
  const help = question.help && markup`<span class="help" id="h-${name}">${question.help}</span>`;
  const error = markup`<span class="error" id="e-${name}"${refused ? '' : ' hidden'}>${refused}</span>`;
  const shared = {
    'aria-describedby': [question.help && `h-${name}`, refused && `e-${name}`].filter(Boolean).join(' ') || null,
    'aria-invalid': refused ? 'true' : null,
  };
  const optional = !question.required && markup` <span class="optional">${words.optional}</span>`;
  if (type === 'consent')
    return markup`<label><input type="checkbox" value="yes"${attributes({ id: `q-${name}`, name, required: question.required, checked: text !== '', ...shared })}><span>${question.label}</span></label>${help}${error}`;
  if (isGroup(question))
    return markup`<fieldset${attributes({ id: `q-${name}`, tabindex: -1, ...shared })}><legend>${question.label}${optional}</legend>${help}${groupHtml(question, answer, words)}</fieldset>${error}`;
  const control = controlHtml(
    question,
    text,
    { id: `q-${name}`, name, required: question.required, placeholder: question.placeholder, ...shared },
    words,
  );
  return markup`<label for="q-${name}">${question.label}${optional}</label>${help}${control}${error}`;
}

function isGroup({ type, shownAs }: Question): boolean {
  return (
    type === 'several-of' ||
    type === 'yes-no' ||
    type === 'address' ||
    (type === 'one-of' && (shownAs === 'radios' || shownAs === 'cards'))
  );
}

function groupHtml(question: Question, answer: JsonValue | undefined, words: FormWords): Html {
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
  return markup`<div class="${look}">${choices.map(
    ({ value, label }) =>
      markup`<label><input type="${kind}"${attributes({ name, value, checked: given.includes(value), required: kind === 'radio' && question.required })}><span>${label}</span></label>`,
  )}</div>`;
}

/** One field a line of the address; what is sent is one text with a line each, put together by the server or the script. */
function addressHtml({ name, required, country }: Question, answer: string, words: FormWords): Html {
  const lines = answer.split('\n');
  const parts = [
    [words.street, 'address-line1'],
    [words.postcode, 'postal-code'],
    [words.town, 'address-level2'],
    [words.country, 'country-name'],
  ] as const;
  return markup`<div class="postal">${parts.map(
    ([label, autocomplete], at) =>
      markup`<label>${label}<input type="text"${attributes({ name: `${name}[]`, autocomplete, required: required && at !== 3, value: lines[at] ?? (at === 3 && country ? (new Intl.DisplayNames([words.language], { type: 'region' }).of(country) ?? '') : '') })}></label>`,
  )}</div>`;
}

type ControlAttributes = Parameters<typeof attributes>[0];

function controlHtml(question: Question, text: string, given: ControlAttributes, words: FormWords): Html {
  return CONTROLS[question.type as OneControl]({ question, text, given, words });
}

interface Control {
  question: Question;
  /** What was answered before. */
  text: string;
  given: ControlAttributes;
  words: FormWords;
}

function input(kind: string, { given, text }: Control, more: ControlAttributes = {}): Html {
  return markup`<input type="${kind}"${attributes({ ...more, ...given, value: text })}>`;
}

const lengths = ({ checks = {} }: Question) => ({ maxlength: checks.longest, minlength: checks.shortest });

function textControl(control: Control): Html {
  const { question } = control;
  const autocomplete = AUTOCOMPLETE[question.feeds?.field ?? question.name];
  return input('text', control, { ...lengths(question), autocomplete });
}

/** Types that are not answered by one control with a label: see `questionHtml` and `groupHtml`. */
type OneControl = Exclude<QuestionTypeName, 'several-of' | 'yes-no' | 'address' | 'consent' | 'hidden'>;

const CONTROLS: Record<OneControl, (control: Control) => Html> = {
  text: textControl,
  'long-text': ({ question, given, text }) =>
    markup`<textarea rows="5"${attributes({ ...lengths(question), ...given })}>${text}</textarea>`,
  email: (control) => input('email', control, { autocomplete: 'email', inputmode: 'email' }),
  phone: (control) =>
    control.question.asksCountry
      ? phoneHtml(control.question, control.text, control.given, control.words)
      : input('tel', control, { autocomplete: 'tel', inputmode: 'tel' }),
  web: (control) => input('text', control, { autocomplete: 'url', inputmode: 'url' }),
  'whole-number': (control) => input('text', control, { inputmode: 'numeric' }),
  decimal: (control) => input('text', control, { inputmode: 'decimal' }),
  money: (control) => {
    const { currency } = control.question;
    const shown = currency && markup`<span aria-hidden="true">${currency}</span>`;
    return markup`<span class="amount">${shown}${input('text', control, { inputmode: 'decimal' })}</span>`;
  },
  date: (control) => {
    const { checks = {} } = control.question;
    return input('date', control, { min: checks.least, max: checks.most });
  },
  file: ({ question: { checks = {} }, given }) =>
    markup`<input type="file"${attributes({ ...given, accept: checks.fileTypes?.map((ending) => `.${ending}`).join(',') })}>`,
  'one-of': ({ question: { options = [] }, given, text, words }) =>
    markup`<select${attributes(given)}><option value="">${words.choose}</option>${options.map(
      ({ value, label }) => markup`<option${attributes({ value, selected: value === text })}>${label}</option>`,
    )}</select>`,
};

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
