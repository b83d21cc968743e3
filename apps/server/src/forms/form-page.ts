import {
  answerAsText,
  CAMPAIGN_PARAMETERS,
  type FormDefinition,
  type JsonObject,
  type Question,
  type RefusedAnswer,
} from '@haycart/core';

/** What a form's page needs besides its definition. */
export interface FormPage {
  form: FormDefinition;
  /** Where the answers are posted. */
  action: string;
  /** A mark of this page, so that sending it twice is one submission. */
  once: string;
  /** The visit as JSON, handed on with the answers. */
  visit: string;
  /** What was typed, after a refusal. */
  answers?: JsonObject;
  refused?: readonly RefusedAnswer[];
}

/** The visit that the address of the page carries: campaign parameters, and the page that the link stood on. */
export function visitFromAddress(query: URLSearchParams, referer: string | undefined): string {
  const visit: Record<string, string> = {};
  for (const name of ['page', 'referrer', ...CAMPAIGN_PARAMETERS]) {
    const value = query.get(name);
    if (value) visit[name] = value.slice(0, 2_000);
  }
  if (!visit.page && referer) visit.page = referer.slice(0, 2_000);
  return JSON.stringify(visit);
}

/** A hosted form as a whole page. It works without JavaScript; with it, answers are checked while they are typed. */
export function formPage({ form, action, once, visit, answers = {}, refused = [] }: FormPage): string {
  const messages = new Map(refused.map(({ name, message }) => [name, message]));
  const summary = refused.length
    ? `<div class="refused" role="alert" tabindex="-1" id="refused"><p>${refused.length === 1 ? 'One answer needs' : `${refused.length} answers need`} another look:</p><ul>${refused
        .map(
          ({ name, message }) =>
            `<li><a href="#q-${name}">${escape(questionNamed(form, name))}</a>: ${escape(message)}</li>`,
        )
        .join('')}</ul></div>`
    : '';
  const questions = form.questions
    .map((question) => questionHtml(question, answerAsText(answers[question.name]), messages.get(question.name)))
    .join('\n');
  const data = escape(JSON.stringify(form.questions.filter(({ type }) => type !== 'hidden')));
  return page(
    form.language,
    form.title,
    `<h1>${escape(form.title)}</h1>
${form.intro ? `<p class="intro">${escape(form.intro)}</p>` : ''}
${summary}
<form method="post" action="${escape(action)}" novalidate data-questions="${data}">
<input type="hidden" name="_once" value="${escape(once)}">
<input type="hidden" name="_visit" value="${escape(visit)}">
${questions}
<button type="submit">${escape(form.button)}</button>
</form>
<script src="/forms/form.js" defer></script>`,
  );
}

/** The page after sending, or in place of a form that is closed. */
export function messagePage(language: string, title: string, text: string): string {
  return page(language, title, `<h1>${escape(title)}</h1>\n<p class="intro">${escape(text)}</p>`);
}

function page(language: string, title: string, body: string): string {
  return `<!doctype html>
<html lang="${escape(language)}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escape(title)}</title>
<link rel="stylesheet" href="/forms/form.css">
<link rel="icon" href="data:,">
</head>
<body>
<main aria-label="${escape(title)}">
${body}
</main>
</body>
</html>
`;
}

function questionNamed(form: FormDefinition, name: string): string {
  const question = form.questions.find((candidate) => candidate.name === name);
  return question?.type === 'consent' ? 'The tick box' : (question?.label ?? name);
}

function questionHtml(question: Question, answer: string, refused: string | undefined): string {
  const { name, type } = question;
  if (type === 'hidden') return `<input type="hidden" name="${name}" value="${escape(question.value ?? answer)}">`;
  const described = [question.help ? `h-${name}` : '', refused ? `e-${name}` : ''].filter(Boolean).join(' ');
  const attributes = [
    `id="q-${name}" name="${name}"`,
    question.required ? 'required' : '',
    described ? `aria-describedby="${described}"` : '',
    refused ? 'aria-invalid="true"' : '',
    question.placeholder ? `placeholder="${escape(question.placeholder)}"` : '',
  ]
    .filter(Boolean)
    .join(' ');
  const help = question.help ? `<span class="help" id="h-${name}">${escape(question.help)}</span>` : '';
  const error = `<span class="error" id="e-${name}"${refused ? '' : ' hidden'}>${escape(refused ?? '')}</span>`;
  const optional = question.required ? '' : ' <span class="optional">optional</span>';
  if (type === 'consent') {
    const ticked = answer ? ' checked' : '';
    return `<div class="question consent"><label for="q-${name}"><input type="checkbox" value="yes" ${attributes}${ticked}><span>${escape(question.label)}</span></label>${help}${error}</div>`;
  }
  return `<div class="question"><label for="q-${name}">${escape(question.label)}${optional}</label>${help}${control(question, answer, attributes)}${error}</div>`;
}

function control({ type, options = [] }: Question, answer: string, attributes: string): string {
  const text = (kind: string, more: string) => `<input type="${kind}" ${more} ${attributes} value="${escape(answer)}">`;
  switch (type) {
    case 'email':
      return text('email', 'autocomplete="email" inputmode="email"');
    case 'phone':
      return text('tel', 'autocomplete="tel" inputmode="tel"');
    case 'long-text':
      return `<textarea rows="5" ${attributes}>${escape(answer)}</textarea>`;
    case 'choice':
      return `<select ${attributes}><option value=""></option>${options
        .map(
          ({ value, label }) =>
            `<option value="${escape(value)}"${value === answer ? ' selected' : ''}>${escape(label)}</option>`,
        )
        .join('')}</select>`;
    default:
      return text('text', '');
  }
}

/** Text made safe inside HTML elements and quoted attributes. */
function escape(text: string): string {
  return text.replace(/[&<>"']/g, (mark) => `&#${mark.charCodeAt(0)};`);
}
