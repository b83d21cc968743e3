import type { FieldValues } from '../diff/record';
import type { JsonValue } from '../json';
import { error, type Problem } from '../problem';
import { storableText } from '../text';
import { liquid, parsedTemplate } from '../value/liquid';

/** A mail with places for values, as Liquid. */
export interface MailTemplate {
  /** How routes name it; never changes. */
  key: string;
  name: string;
  subject: string;
  /** For every reader. */
  text: string;
  /** For readers of HTML, whose values are escaped; `null` where the text is all there is. */
  html: string | null;
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

/** The longest subject and the longest text of a template, in characters. */
export const MAIL_LIMITS: Readonly<Record<MailPart, number>> = { subject: 500, text: 50_000, html: 100_000 };

/** The mail that a template makes of values; `null` where it cannot be worked out. Values that are not there are blank. */
export function renderMail(template: Omit<MailTemplate, 'key' | 'name'>, values: MailValues): RenderedMail | null {
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
  if (!template.subject.trim()) problems.push(error('blank-title', 'A mail needs a subject.', '/subject'));
  if (!template.text.trim()) problems.push(error('blank-text', 'A mail needs a text, also beside HTML.', '/text'));
  for (const part of MAIL_PARTS) {
    const text = template[part];
    if (text === null) continue;
    if (storableText(text) !== text)
      problems.push(error('wrong-value', 'There is a character in it that cannot be kept.', `/${part}`));
    else if (text.length > MAIL_LIMITS[part])
      problems.push(error('too-long', `At most ${MAIL_LIMITS[part].toLocaleString('en-GB')} characters.`, `/${part}`));
    else if (parsedTemplate(text, part === 'html' ? 'html' : 'text') === null)
      problems.push(
        error(
          'template-does-not-fit',
          'This is no Liquid template, or uses a tag or filter that cannot be used here.',
          `/${part}`,
        ),
      );
  }
  return problems;
}

/** What a template names, once each, with the part in which it stands: `contact.first_name`. */
export function namesInMail(template: Omit<MailTemplate, 'key' | 'name'>): { part: MailPart; path: string[] }[] {
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
