import type { FieldValues } from '../diff/record';
import type { JsonValue } from '../json';
import { error, type Problem } from '../problem';
import { storableText } from '../text';
import { liquid, parsedTemplate } from '../value/liquid';

/** The texts of a mail in one language, with places for values, as Liquid. */
export interface MailTexts {
  subject: string;
  /** For every reader. */
  text: string;
  /** For readers of HTML, whose values are escaped; `null` where the text is all there is. */
  html: string | null;
}

/** By what mails are written: its texts are for every reader who has none in their own language. */
export interface MailTemplate extends MailTexts {
  /** How routes name it; never changes. */
  key: string;
  name: string;
  /** By language (BCP 47). */
  translations?: Readonly<Record<string, MailTexts>>;
}

/** A mail as somebody reads it. */
export interface RenderedMail {
  subject: string;
  text: string;
  html: string | null;
}

/** What a template may name: `{{ answers.email }}`, `{{ contact.first_name }}`, `{{ route.name }}`. */
export interface MailValues {
  answers: JsonValue;
  route: { name: string };
  [record: string]: JsonValue | FieldValues | { name: string };
}

export const MAIL_PARTS = ['subject', 'text', 'html'] as const;
export type MailPart = (typeof MAIL_PARTS)[number];

/** The most languages beside its own that a template has. */
export const MOST_TRANSLATIONS = 20;

/** The longest subject and the longest text of a template, in characters. */
export const MAIL_LIMITS: Readonly<Record<MailPart, number>> = { subject: 500, text: 50_000, html: 100_000 };

/** The mail that a template makes of values; `null` where it cannot be worked out. Values that are not there are blank. */
export function renderMail(template: MailTexts, values: MailValues): RenderedMail | null {
  const part = (text: string, as: 'text' | 'html') => {
    const parsed = parsedTemplate(text, as);
    return parsed && storableText(liquid(as).renderSync(parsed, values) as string);
  };
  try {
    const [subject, text] = [part(template.subject, 'text'), part(template.text, 'text')];
    const html = template.html === null ? null : part(template.html, 'html');
    if (subject === null || text === null || (template.html !== null && html === null)) return null;
    // A line break in a subject would begin another header.
    return { subject: subject.replaceAll(/[\s\p{Cc}]+/gu, ' ').trim(), text, html };
  } catch (cause) {
    if ((cause as Error).name === 'LibraryMissing') throw cause;
    return null;
  }
}

/** What is wrong with a template by itself, by its parts. */
export function checkMailTemplate(template: Omit<MailTemplate, 'key'>): Problem[] {
  const problems: Problem[] = [];
  if (!template.name.trim()) problems.push(error('name-blank', 'A template needs a name.', '/name'));
  const translated = Object.entries(template.translations ?? {});
  if (translated.length > MOST_TRANSLATIONS)
    problems.push(error('too-long', `At most ${MOST_TRANSLATIONS} languages.`, '/translations'));
  return [
    ...problems,
    ...checkTexts(template, ''),
    ...translated.flatMap(([language, texts]) =>
      isLanguage(language)
        ? checkTexts(texts, `/translations/${language}`)
        : error('wrong-value', `“${language.slice(0, 40)}” is no language, such as nl.`, '/translations'),
    ),
  ];
}

function checkTexts(template: MailTexts, at: string): Problem[] {
  const problems: Problem[] = [];
  if (!template.subject.trim()) problems.push(error('blank-title', 'A mail needs a subject.', `${at}/subject`));
  if (!template.text.trim()) problems.push(error('blank-text', 'A mail needs a text, also beside HTML.', `${at}/text`));
  for (const part of MAIL_PARTS) {
    const text = template[part];
    if (text === null) continue;
    if (storableText(text) !== text)
      problems.push(error('wrong-value', 'There is a character in it that cannot be kept.', `${at}/${part}`));
    else if (text.length > MAIL_LIMITS[part])
      problems.push(
        error('too-long', `At most ${MAIL_LIMITS[part].toLocaleString('en-GB')} characters.`, `${at}/${part}`),
      );
    else if (parsedTemplate(text, part === 'html' ? 'html' : 'text') === null)
      problems.push(
        error(
          'template-does-not-fit',
          'This is no Liquid template, or uses a tag or filter that cannot be used here.',
          `${at}/${part}`,
        ),
      );
  }
  return problems;
}

function isLanguage(language: string): boolean {
  try {
    return Intl.getCanonicalLocales(language).length === 1;
  } catch {
    return false;
  }
}

/** Reads texts by language; `null` where they are no such thing. */
export function readTranslations(given: object): Record<string, MailTexts> | null {
  const read: [string, MailTexts][] = [];
  for (const [language, texts] of Object.entries(given) as [string, unknown][]) {
    if (typeof texts !== 'object' || texts === null) return null;
    const { subject, text, html = null, ...others } = texts as Record<string, unknown>;
    if (typeof subject !== 'string' || typeof text !== 'string' || Object.keys(others).length) return null;
    if (html !== null && typeof html !== 'string') return null;
    read.push([language, { subject, text, html }]);
  }
  return Object.fromEntries(read);
}

/** All texts of a template, its own first. */
export function textsOfMail({ translations = {}, ...own }: Omit<MailTemplate, 'key' | 'name'>): MailTexts[] {
  return [own, ...Object.values(translations)];
}

/** The texts for a reader of a language: of that one, or of the same without its region; else the template’s own. */
export function textsFor(template: MailTemplate, language: string | undefined): MailTexts {
  if (!language) return template;
  const primary = (tag: string) => tag.split('-')[0]!.toLowerCase();
  const all = Object.entries(template.translations ?? {});
  const found =
    all.find(([one]) => one.toLowerCase() === language.toLowerCase()) ??
    all.find(([one]) => primary(one) === primary(language));
  return found?.[1] ?? template;
}

/** What texts name, once each, with the part in which it stands: `contact.first_name`. */
export function namesInMail(template: MailTexts): { part: MailPart; path: string[] }[] {
  return MAIL_PARTS.flatMap((part) => {
    const text = template[part];
    const as = part === 'html' ? 'html' : 'text';
    const parsed = text === null ? null : parsedTemplate(text, as);
    if (!parsed) return [];
    const found = new Map<string, string[]>();
    for (const segments of liquid(as).globalVariableSegmentsSync(parsed)) {
      const path = segments.map(String);
      found.set(path.join('.'), path);
    }
    return [...found.values()].map((path) => ({ part, path }));
  });
}
