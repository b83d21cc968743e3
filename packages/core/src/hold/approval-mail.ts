import type { RenderedMail } from '../mail/mail-template';
import { storableText } from '../text';

/** The mail by which a colleague is asked whether something may be written. */
export function approvalMail({
  who,
  route,
  would,
  link,
  days,
}: {
  who: string;
  route: string;
  would: readonly string[];
  link: string;
  days: number;
}): RenderedMail {
  const subject = `May ${route} write what ${who} sent?`;
  const text = [
    `${who} sent something, and nothing of it is written until you say yes or no.`,
    ['With a yes:', ...would.map((one) => `- ${one}.`)].join('\n'),
    `See all that was sent, and answer: ${link}`,
    `The link is yours alone: whoever opens it answers in your name. It works once, for ${days} days.`,
  ].join('\n\n');
  // A line break in a subject would begin another header.
  return { subject: storableText(subject).replaceAll(/[\s\p{Cc}]+/gu, ' '), text: storableText(text), html: null };
}

/** The same once more, to whoever has not answered it. */
export function asReminder(mail: RenderedMail): RenderedMail {
  return { ...mail, subject: `Still waiting: ${mail.subject}` };
}
