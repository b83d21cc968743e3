import {
  CAMPAIGN_PARAMETERS,
  clickIn,
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
import { attributes, joined, markup, paragraphs, trusted, type Html } from './html';
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

/** The longest `earlier` parameter that is read, in characters. */
const LONGEST_EARLIER = 6_000;

/** The visit that the address of the page carries: campaign parameters, and the page that the link stood on. */
export function visitFromAddress(
  query: URLSearchParams,
  referer: string | undefined,
  known: Record<string, string> = {},
): string {
  const visit: Record<string, string> = { ...known };
  for (const name of ['page', 'landing', 'referrer', ...CAMPAIGN_PARAMETERS]) {
    const value = query.get(name);
    if (value) visit[name] = value.slice(0, 2_000);
  }
  const click = clickIn(query);
  if (click) Object.assign(visit, { click: click.name, clickId: click.id.slice(0, 2_000) });
  const earlier = query.get('earlier');
  if (earlier && earlier.length <= LONGEST_EARLIER) visit.earlier = earlier;
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
    markup`<h1>${form.title}</h1>
${form.intro && markup`<div class="intro">${paragraphs(form.intro)}</div>`}
${said && markup`<p class="said" role="status">${said}</p>`}
${refusedHtml(shown)}
<form method="post"${attributes({ action: action ?? '#', enctype: withFiles ? 'multipart/form-data' : null, novalidate: true, 'data-form': browserForm(form), 'data-preview': !action, 'data-seen': shown.seen })}>
<input type="hidden" name="_once" value="${once}">
<input type="hidden" name="_visit" value="${visit}">
<input type="hidden" name="${OPENED}" value="${Date.now()}">
${entry && markup`<input type="hidden" name="${ENTRY}" value="${entry}">`}<div class="trap" aria-hidden="true"><label>Leave this blank<input type="text" name="${TRAP}" tabindex="-1" autocomplete="off"></label></div>
${stepsHtml(shown, words)}
<div class="send"><button type="submit">${form.button}</button></div>
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

function refusedHtml({ form, refused = [] }: FormPage): Html | null {
  if (!refused.length) return null;
  const words = formWords(form.language);
  const lines = refused.map(
    ({ name, message }) => markup`<li><a href="#q-${name}">${questionNamed(form, name)}</a>: ${message}</li>`,
  );
  return markup`<div class="refused" role="alert" tabindex="-1" id="refused"><p>${refused.length > 1 && `${refused.length}: `}${words.again}</p><ul>${lines}</ul></div>`;
}

function questionNamed(form: FormDefinition, name: string): string {
  return questionsOf(form).find((question) => question.name === name)?.label ?? name;
}

/** The questions and what stands between them, a section for each step. */
function stepsHtml(shown: FormPage, words: FormWords): Html {
  const messages = new Map((shown.refused ?? []).map(({ name, message }) => [name, message]));
  const steps = stepsOf(shown.form);
  const itemHtml = (item: FormItem) => {
    const inner = isQuestion(item)
      ? questionHtml(item, shown.answers?.[item.name], messages.get(item.name), words)
      : contentHtml(item, shown.nonce);
    return isQuestion(item) && item.type === 'hidden'
      ? inner
      : markup`<div class="${isQuestion(item) ? `question ${item.type}` : 'content'}" data-item="${item.name}">${inner}</div>`;
  };
  return joined(
    steps.map(({ step, items }, index) => {
      const line =
        steps.length > 1 &&
        markup`<p class="progress">${withLimit(words.step, index + 1).replace('{all}', String(steps.length))}</p>`;
      const head = step && contentHtml(step, shown.nonce);
      return markup`<section class="step"${attributes({ 'data-step': step?.name ?? '' })}>${line}${head}
${joined(items.map(itemHtml), '\n')}</section>`;
    }),
    '\n',
  );
}

/** The page after sending, or in place of a form that cannot be filled in; it may lead on. */
export function messagePage(
  shown: ShownForm,
  title: string,
  text: string,
  {
    sent = false,
    link,
    press,
    more,
  }: {
    sent?: boolean;
    link?: { address: string; text: string };
    /** The words of a button that posts to this page. */
    press?: string | undefined;
    /** What stands under the text. */
    more?: Html | undefined;
  } = {},
): string {
  const onward = link && markup`<p><a${attributes({ href: link.address, target: '_top' })}>${link.text}</a></p>`;
  return page(
    shown,
    markup`<div${attributes({ 'data-sent': sent })}><h1>${title}</h1>
<div class="intro">${paragraphs(text)}</div>${onward}${more}${press && markup`<form method="post"><div class="send"><button type="submit">${press}</button></div></form>`}</div>`,
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

function page(shown: ShownForm, body: Html, preview = false): string {
  const { form, theme, nonce, embedded, others, style } = shown;
  const { description, canonical, image, icon } = form.page ?? {};
  const meta = [
    description && markup`<meta name="description"${attributes({ content: description })}>`,
    canonical && markup`<link rel="canonical"${attributes({ href: canonical })}>`,
    markup`<meta property="og:title"${attributes({ content: form.title })}>`,
    description && markup`<meta property="og:description"${attributes({ content: description })}>`,
    image && markup`<meta property="og:image"${attributes({ content: image })}>`,
    markup`<link rel="icon"${attributes({ href: icon ?? 'data:,' })}>`,
  ];
  const languages =
    others.length > 0 &&
    markup`<nav class="languages">${joined(
      others.map(
        ({ language, address }) =>
          markup`<a${attributes({ href: address, lang: language, hreflang: language })}>${languageName(language)}</a>`,
      ),
      ' ',
    )}</nav>`;
  return markup`<!doctype html>
<html lang="${form.language}"${attributes({ class: [embedded && 'embedded', preview && 'scripted'].filter(Boolean).join(' ') || null })}>
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${form.title}</title>
${joined(meta, '\n')}
<link rel="preload" href="/forms/figtree.woff2" as="font" type="font/woff2" crossorigin>
<style nonce="${nonce}">${trusted(style)}${trusted(themeCss(theme))}</style>
${!preview && markup`<script nonce="${nonce}">${trusted(SCRIPTED)}</script>`}
${trusted(form.snippets?.head ?? '')}
</head>
<body>
<main aria-label="${form.title}">
${languages}
${body}
</main>
<script src="/forms/form.js" nonce="${nonce}" defer></script>${preview && markup`\n<script src="/forms/preview.js" defer></script>`}
${trusted(form.snippets?.body ?? '')}
</body>
</html>
`.toString();
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
