import { z } from '../../schema-library';
import type { FollowUp } from '../../definition/route-definition';
import { condition, value } from '../../definition/shapes';
import type { MailAttachment } from '../../mail/mail-attachment';
import { LINK_TO_COME, missingLink, UNSUBSCRIBE_LINK } from '../../mail/mail-links';
import { renderMail, textsFor } from '../../mail/mail-template';
import { normalEmail } from '../../reading/email';
import { warning } from '../../problem';
import type { ConsentState } from '../../consent/consent';
import type { Value } from '../../value/value';
import type { JsonValue } from '../../json';
import { defineEffect, type EffectKind, type EffectRecord } from '../effect';
import { mailValues, templateOf, visitorOf, wrongNames } from '../mail-values';

interface MailFollowUp extends FollowUp {
  do: 'mail';
  /** `visitor`: the address of the contact, or the lead, that the route writes. */
  to: 'visitor' | Value;
  /** The key of a template. */
  template: string;
  /** The key of the team in whose name it goes, and to which answers go; in that of the workspace when not said. */
  from?: string;
  attach?: MailAttach;
  /** It goes to contacts alone that agreed to e-mail, with a link by which they want no more. */
  marketing?: true;
}

/** What goes with a mail. */
export interface MailAttach {
  /** The documents that follow-ups before it make. */
  documents?: boolean;
  /** The files that the visitor sent. */
  uploads?: boolean;
  /** Keys of the workspace’s own files, such as a price list. */
  files?: string[];
}

/** What a new template says that thanks a visitor. */
export const THANKS_STARTER = {
  name: 'Thank you',
  subject: 'We have what you sent',
  text: 'Hello,\n\nthank you for writing to us. We have what you sent, and answer you soon.\n',
};

/** Writes to the visitor, or to anybody, by a template. */
export const mail = defineEffect<MailFollowUp>({
  do: 'mail',
  label: 'Mail',
  description: 'Writes to the visitor, or to anybody, by a template; a copy stays with the record.',
  shape: z.strictObject({
    do: z.literal('mail'),
    to: z.union([z.literal('visitor'), value]),
    template: z.string().max(200),
    from: z.string().max(200).optional(),
    attach: z
      .strictObject({
        documents: z.boolean().optional(),
        uploads: z.boolean().optional(),
        files: z.array(z.string().max(200)).max(10).optional(),
      })
      .optional(),
    marketing: z.literal(true).optional(),
    when: condition.optional(),
  }) as unknown as z.ZodType<MailFollowUp>,
  example: {
    settings: { do: 'mail', to: 'visitor', template: 'thanks' },
    words: 'the visitor is written “Thank you”',
  },
  withValues: (settings, change) =>
    settings.to === 'visitor' ? settings : { ...settings, to: change(settings.to, ['to']) },
  check({ to, template: key, from, attach, marketing }, { route, destination }) {
    const problems: ReturnType<EffectKind['check']> = (attach?.files ?? []).flatMap((file, index) =>
      (destination.files ?? []).some((one) => one.key === file)
        ? []
        : { code: 'unknown-file' as const, text: `There is no file “${file}”.`, way: ['attach', 'files', index] },
    );
    if (to !== 'visitor' && !to.parts.length)
      problems.push({ code: 'no-part' as const, text: 'Say to whom the mail goes.', way: ['to'] });
    if (to === 'visitor' && !route.writes.some(({ record }) => record === 'contact' || record === 'lead'))
      problems.push({
        code: 'unknown-write' as const,
        text: 'The route writes neither a contact nor a lead, so it knows no address of the visitor.',
        way: ['to'],
      });
    if (from !== undefined && !destination.teams?.[from])
      problems.push({ code: 'unknown-team' as const, text: `There is no team “${from}”.`, way: ['from'] });
    if (marketing && (to !== 'visitor' || !route.writes.some(({ record }) => record === 'contact')))
      problems.push({
        code: 'needs-contact' as const,
        text: 'Marketing goes to the visitor alone, as a contact that the route writes: there it stands who agreed to it.',
        way: ['marketing'],
      });
    const template = templateOf(destination, key);
    if (!template)
      return [
        ...problems,
        {
          code: 'unknown-template' as const,
          text: key ? `There is no template “${key}”.` : 'Say by which template.',
          way: ['template'],
        },
      ];
    const texts = wrongNames(template, route, destination, marketing ? [UNSUBSCRIBE_LINK] : []);
    const missing = marketing && missingLink(template, UNSUBSCRIBE_LINK, 'its reader wants no more of them');
    return [
      ...problems,
      ...(missing ? [...texts, missing] : texts).map((text) => ({
        code: 'template-does-not-fit' as const,
        text,
        way: ['template'],
      })),
    ];
  },
  describe({ to, template: key, from, marketing }, { destination }) {
    const template = templateOf(destination, key);
    const called = template ? `“${template.name}”` : key ? `by “${key}”` : 'by no template yet';
    return `${to === 'visitor' ? 'the visitor' : 'somebody'} is written ${called}${from === undefined ? '' : ` by the team ${destination.teams?.[from]?.name ?? from}`}${marketing ? ', if they agreed to e-mail' : ''}`;
  },
  plan({ to, template: key, from, attach = {}, marketing }, context) {
    const { records, documents, submission, destination, workOut } = context;
    const visitor = visitorOf(marketing ? records.filter(({ kind }) => kind === 'contact') : records);
    const worked = to === 'visitor' ? null : workOut(to);
    const problems = worked?.problems ?? [];
    const address = normalEmail(worked ? worked.text : String(visitor?.values.email ?? ''));
    const template = templateOf(destination, key);
    const words = template ? `Mail “${template.name}”` : 'Mail';
    if (!template)
      return {
        words,
        problems: [
          ...problems,
          warning('unknown-template', `There is no template “${key}” any more, so no mail is sent.`),
        ],
      };
    if (!address.ok)
      return {
        words,
        problems: [...problems, warning('no-address', `${words} is not sent: no e-mail address is known.`)],
      };
    const rendered = renderMail(textsFor(template, submission.visit.language), {
      ...mailValues(context),
      unsubscribe: { link: LINK_TO_COME },
    });
    if (!rendered)
      return {
        words,
        problems: [
          ...problems,
          warning('template-failed', `${words} is not sent: the template cannot be worked out with this submission.`),
        ],
      };
    const isTheirs = ({ kind, values }: EffectRecord) => kind !== 'company' && values.email === address.email;
    const about = marketing ? visitor : (records.find(isTheirs) ?? visitor ?? records[0]);
    const attached: MailAttachment[] = [
      ...(attach.documents ? documents.map(({ name, title, rows = [] }) => ({ document: { title, rows }, name })) : []),
      ...(attach.uploads ? [{ uploads: submission.id }] : []),
      ...(attach.files ?? []).map((file) => ({ file })),
    ];
    return {
      words: `${words} to ${address.email}${marketing ? ', if they agreed to e-mail' : ''}`,
      problems,
      out: {
        kind: 'mail',
        to: address.email,
        body: {
          ...rendered,
          ...(attached.length ? { attached } : {}),
          ...(from === undefined ? {} : { from }),
          ...(marketing ? { consent: 'given' satisfies ConsentState } : {}),
        } as unknown as JsonValue,
        ...(about ? { record: { kind: about.kind, id: about.id } } : {}),
      },
    };
  },
  adopt: ({ attach, ...settings }, adopt) => ({
    ...settings,
    template: adopt('template', settings.template),
    ...(settings.from === undefined ? {} : { from: adopt('team', settings.from) }),
    ...(attach
      ? { attach: { ...attach, ...(attach.files ? { files: attach.files.map((file) => adopt('file', file)) } : {}) } }
      : {}),
  }),
});
