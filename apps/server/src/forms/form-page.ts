import {
  CAMPAIGN_PARAMETERS,
  ENTRY,
  filledIn,
  formWords,
  isQuestion,
  languagesOf,
  OPENED,
  questionsOf,
  stepsOf,
  TRAP,
  withLimit,
  type FormDefinition,
  type FormItem,
  type FormWords,
  type JsonObject,
  type RefusedAnswer,
  type Theme,
} from '@haycart/core';
import { contentHtml } from './content-html';
import { attributes, escape, paragraphs } from './html';
import { questionHtml } from './question-html';
import { themeCss } from './theme-css';

/** A form as a visitor gets it: in their language, following its fields, and how it looks. */
export interface ShownForm {
  form: FormDefinition;
  theme: Theme;
  /** The languages that it can be read in besides, with the address of each. */
  others: { language: string; address: string }[];
  /** For the style of the theme (Content Security Policy, nonce). */
  nonce: string;
  /** Whether it stands inside another page. */
  embedded: boolean;
  /** The style that all forms have. It stands in the page: a file of its own would cost another journey. */
  style: string;
}

/** What a form's page needs besides the form. */
export interface FormPage extends ShownForm {
  /** Where the answers are posted; absent in the editor, where sending does nothing. */
  action?: string;
  /** Where the page tells what happens at it. */
  seen?: string;
  /** The entry link of the colleague who fills it in. */
  entry?: string | undefined;
  /** A mark of this page, so that sending it twice is one submission. */
  once: string;
  /** The visit as JSON, handed on with the answers. */
  visit: string;
  /** What was typed, after a refusal. */
  answers?: JsonObject;
  refused?: readonly RefusedAnswer[];
  /** What is said above the questions, after something was sent already. */
  said?: string;
}

/** The visit that the address of the page carries: campaign parameters, and the page that the link stood on. */
export function visitFromAddress(
  query: URLSearchParams,
  referer: string | undefined,
  known: Record<string, string> = {},
): string {
  const visit: Record<string, string> = { ...known };
  for (const name of ['page', 'referrer', ...CAMPAIGN_PARAMETERS]) {
    const value = query.get(name);
    if (value) visit[name] = value.slice(0, 2_000);
  }
  if (!visit.page && referer) visit.page = referer.slice(0, 2_000);
  return JSON.stringify(visit);
}

/** What an address gives the questions that are not shown: `?stand=B4`. */
export function answersFromAddress(form: FormDefinition, query: URLSearchParams): JsonObject {
  return Object.fromEntries(
    questionsOf(form).flatMap(({ type, name, from }) => {
      const value = type === 'hidden' && from ? query.get(from) : null;
      return value ? [[name, value.slice(0, 1_000)]] : [];
    }),
  );
}

/** A form as a whole page. It works without JavaScript; with it, answers are checked while they are typed. */
export function formPage(shown: FormPage): string {
  const { form, action, once, visit, said, entry } = shown;
  const words = formWords(form.language);
  const withFiles = questionsOf(form).some(({ type }) => type === 'file');
  return page(
    shown,
    `<h1>${escape(form.title)}</h1>
${form.intro ? `<div class="intro">${paragraphs(form.intro)}</div>` : ''}
${said ? `<p class="said" role="status">${escape(said)}</p>` : ''}
${refusedHtml(shown)}
<form method="post"${attributes({ action: action ?? '#', enctype: withFiles ? 'multipart/form-data' : null, novalidate: true, 'data-form': browserForm(form), 'data-preview': !action, 'data-seen': shown.seen })}>
<input type="hidden" name="_once" value="${escape(once)}">
<input type="hidden" name="_visit" value="${escape(visit)}">
<input type="hidden" name="${OPENED}" value="${Date.now()}">
${entry ? `<input type="hidden" name="${ENTRY}" value="${escape(entry)}">` : ''}<div class="trap" aria-hidden="true"><label>Leave this blank<input type="text" name="${TRAP}" tabindex="-1" autocomplete="off"></label></div>
${stepsHtml(shown, words)}
<div class="send"><button type="submit">${escape(form.button)}</button></div>
</form>`,
    !action,
  );
}

/** What the script needs of a form: not its words, only what decides. */
function browserForm({ items, language }: FormDefinition): string {
  const lean = items.map((item) =>
    isQuestion(item) ? item : { name: item.name, type: item.type, shownWhen: item.shownWhen },
  );
  return JSON.stringify({ items: lean, language });
}

function refusedHtml({ form, refused = [] }: FormPage): string {
  if (!refused.length) return '';
  const words = formWords(form.language);
  const lines = refused.map(
    ({ name, message }) => `<li><a href="#q-${name}">${escape(questionNamed(form, name))}</a>: ${escape(message)}</li>`,
  );
  return `<div class="refused" role="alert" tabindex="-1" id="refused"><p>${refused.length === 1 ? escape(words.again) : `${refused.length}: ${escape(words.again)}`}</p><ul>${lines.join('')}</ul></div>`;
}

function questionNamed(form: FormDefinition, name: string): string {
  return questionsOf(form).find((question) => question.name === name)?.label ?? name;
}

/** The questions and what stands between them, a section for each step. */
function stepsHtml(shown: FormPage, words: FormWords): string {
  const messages = new Map((shown.refused ?? []).map(({ name, message }) => [name, message]));
  const steps = stepsOf(shown.form);
  const itemHtml = (item: FormItem) => {
    const inner = isQuestion(item)
      ? questionHtml(item, shown.answers?.[item.name], messages.get(item.name), words)
      : contentHtml(item, shown.nonce);
    return isQuestion(item) && item.type === 'hidden'
      ? inner
      : `<div class="${isQuestion(item) ? `question ${item.type}` : 'content'}" data-item="${item.name}">${inner}</div>`;
  };
  return steps
    .map(({ step, items }, index) => {
      const line =
        steps.length > 1
          ? `<p class="progress">${escape(withLimit(words.step, index + 1).replace('{all}', String(steps.length)))}</p>`
          : '';
      const head = step ? contentHtml(step, shown.nonce) : '';
      return `<section class="step"${attributes({ 'data-step': step?.name ?? '' })}>${line}${head}
${items.map(itemHtml).join('\n')}</section>`;
    })
    .join('\n');
}

/** The page after sending, or in place of a form that cannot be filled in; it may lead on. */
export function messagePage(
  shown: ShownForm,
  title: string,
  text: string,
  { sent = false, link }: { sent?: boolean; link?: { address: string; text: string } } = {},
): string {
  const onward = link ? `<p><a${attributes({ href: link.address, target: '_top' })}>${escape(link.text)}</a></p>` : '';
  return page(
    shown,
    `<div${attributes({ 'data-sent': sent })}><h1>${escape(title)}</h1>
<div class="intro">${paragraphs(text)}</div>${onward}</div>`,
  );
}

/** What is said after sending, with the answers filled in. */
export function thanksPage(shown: ShownForm, answers: JsonObject): string {
  const { after } = shown.form;
  const title = after.do === 'redirect' ? shown.form.title : after.title;
  return messagePage(
    shown,
    filledIn(title, shown.form, answers),
    after.do === 'thank' ? filledIn(after.text, shown.form, answers) : '',
    { sent: true },
  );
}

/**
 * Says before anything is painted that a script will show step by step, so that nothing jumps when it does; and takes it
 * back when that script does not come, since the form must work without it.
 */
const SCRIPTED =
  "(function(c){c.add('scripted');addEventListener('error',function(e){if(e.target.src)c.remove('scripted')},true)})(document.documentElement.classList)";

function page(shown: ShownForm, body: string, preview = false): string {
  const { form, theme, nonce, embedded, others, style } = shown;
  const { description, canonical, image, icon } = form.page ?? {};
  const meta = [
    description && `<meta name="description"${attributes({ content: description })}>`,
    canonical && `<link rel="canonical"${attributes({ href: canonical })}>`,
    `<meta property="og:title"${attributes({ content: form.title })}>`,
    description && `<meta property="og:description"${attributes({ content: description })}>`,
    image && `<meta property="og:image"${attributes({ content: image })}>`,
    `<link rel="icon"${attributes({ href: icon ?? 'data:,' })}>`,
  ];
  const languages = others.length
    ? `<nav class="languages">${others
        .map(
          ({ language, address }) =>
            `<a${attributes({ href: address, lang: language, hreflang: language })}>${escape(languageName(language))}</a>`,
        )
        .join(' ')}</nav>`
    : '';
  return `<!doctype html>
<html lang="${escape(form.language)}"${attributes({ class: [embedded && 'embedded', preview && 'scripted'].filter(Boolean).join(' ') || null })}>
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escape(form.title)}</title>
${meta.filter(Boolean).join('\n')}
<link rel="preload" href="/forms/figtree.woff2" as="font" type="font/woff2" crossorigin>
<style nonce="${nonce}">${style}${themeCss(theme)}</style>
${preview ? '' : `<script nonce="${nonce}">${SCRIPTED}</script>`}
${form.snippets?.head ?? ''}
</head>
<body>
<main aria-label="${escape(form.title)}">
${languages}
${body}
</main>
<script src="/forms/form.js" nonce="${nonce}" defer></script>${preview ? '\n<script src="/forms/preview.js" defer></script>' : ''}
${form.snippets?.body ?? ''}
</body>
</html>
`;
}

function languageName(language: string): string {
  const name = new Intl.DisplayNames([language], { type: 'language' }).of(language.split('-')[0]!);
  return name ? name.charAt(0).toLocaleUpperCase(language) + name.slice(1) : language;
}

/** Where a form can be read in its other languages. */
export function otherLanguages(form: FormDefinition, now: string, slug: string, query: URLSearchParams) {
  return languagesOf(form)
    .filter((language) => language !== now)
    .map((language) => {
      const next = new URLSearchParams(query);
      next.set('lang', language);
      return { language, address: `/f/${slug}?${next.toString()}` };
    });
}
