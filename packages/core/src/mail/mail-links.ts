import { namesInMail, textsOfMail, type MailTemplate } from './mail-template';

/** What a mail names to hold a link by which its reader confirms. */
export const CONFIRM_LINK = 'confirm.link';
/** What a mail names to hold a link by which its reader wants no more of its kind. */
export const UNSUBSCRIBE_LINK = 'unsubscribe.link';

/** Stands for a link of its reader's own until the mail goes out; whoever only looks at the mail sees this. */
export const LINK_TO_COME = 'https://hay-cart.example/ask/a-link-of-their-own';

/** Why a template does not hold a link in all of its texts, as a sentence; `null` where it does. */
export function missingLink(template: MailTemplate, link: string, whatFor: string): string | null {
  if (namesLink(template, link)) return null;
  const inAll = template.translations && Object.keys(template.translations).length ? ', in each language' : '';
  const where = `${template.html === null ? 'text' : 'text and its HTML'}${inAll}`;
  return `The template ${template.name} needs {{ ${link} }} in its ${where}: the link by which ${whatFor}.`;
}

/** Whether a template has a link in all of its texts. */
export function namesLink(template: MailTemplate, link: string): boolean {
  return textsOfMail(template).every((texts) => {
    const parts = new Set(namesInMail(texts).flatMap(({ part, path }) => (path.join('.') === link ? part : [])));
    return parts.has('text') && (texts.html === null || parts.has('html'));
  });
}

/** The mail with the reader’s own link where it is to come. */
export function withLink<Mail extends { text: string; html: string | null }>(mail: Mail, link: string): Mail {
  const put = (text: string) => text.replaceAll(LINK_TO_COME, link);
  return { ...mail, text: put(mail.text), html: mail.html === null ? null : put(mail.html) };
}
