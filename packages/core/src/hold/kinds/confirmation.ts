import { z } from '../../schema-library';
import type { Condition, Hold } from '../../definition/route-definition';
import { condition } from '../../definition/shapes';
import { mailValues, templateOf, visitorOf, wrongNames } from '../../effect/mail-values';
import { daysOrUsual, whatIsWrongWithDays } from '../../mail/days-to-confirm';
import { CONFIRM_LINK, missingLink } from '../../mail/mail-links';
import { renderMail, textsFor } from '../../mail/mail-template';
import { normalEmail } from '../../reading/email';
import { counted } from '../../text';
import { defineHold } from '../hold';

/** The visitor confirms that the address is theirs before anything is written (double opt-in). */
export interface ConfirmationHold extends Hold {
  for: 'confirmation';
  /** The key of the template of the mail; it names `confirm.link`. */
  template: string;
  /** For how long it can be confirmed, in whole days as an ISO 8601 duration: `P7D`, which is meant when not said. */
  within?: string;
  /** Otherwise it needs no confirmation. */
  when?: Condition;
}

/** What a new template for it says. */
export const CONFIRM_STARTER = {
  name: 'Please confirm',
  subject: 'Please confirm your address',
  text: 'Hello,\n\nsomebody, hopefully you, gave us this address.\n\nPlease confirm that it is yours:\n{{ confirm.link }}\n\nIf it was not you, do nothing: what was sent is not kept in our records.\n',
  html: null,
};

export const confirmation = defineHold<ConfirmationHold>({
  for: 'confirmation',
  label: 'Confirmation',
  shape: z.strictObject({
    for: z.literal('confirmation'),
    template: z.string().max(200),
    within: z.string().max(10).optional(),
    when: condition.optional(),
  }) as unknown as z.ZodType<ConfirmationHold>,
  example: {
    settings: { for: 'confirmation', template: 'confirm', within: 'P3D' },
    words: 'the visitor confirms by the mail “Please confirm” first, within 3 days',
  },
  check({ template: key, within }, { route, destination }) {
    const problems = [];
    const wrongDays = whatIsWrongWithDays(within);
    if (wrongDays) problems.push({ code: 'wrong-value' as const, text: wrongDays, way: ['within'] });
    if (!route.writes.some(({ record }) => record === 'contact' || record === 'lead'))
      problems.push({
        code: 'unknown-write' as const,
        text: 'The route writes neither a contact nor a lead, so it knows no address of the visitor.',
        way: ['template'],
      });
    const template = templateOf(destination, key);
    if (!template)
      return [
        ...problems,
        {
          code: 'unknown-template' as const,
          text: key ? `There is no template “${key}”.` : 'Say by which template the visitor is written.',
          way: ['template'],
        },
      ];
    const texts = wrongNames(template, route, destination, [CONFIRM_LINK]);
    const missing = missingLink(template, CONFIRM_LINK, 'the visitor confirms');
    if (missing) texts.push(missing);
    return [...problems, ...texts.map((text) => ({ code: 'template-does-not-fit' as const, text, way: ['template'] }))];
  },
  describe({ template: key, within }, { destination }) {
    const name = templateOf(destination, key)?.name;
    const by = name ? `the mail “${name}”` : 'a mail';
    return `the visitor confirms by ${by} first, within ${counted(daysOrUsual(within), 'day')}`;
  },
  passed: ({ by }) => `${by} confirmed by mail`,
  plan({ template: key, within }, { index, given, records, route, submission, destination, link }) {
    if (given?.approved) return null;
    const days = daysOrUsual(within);
    const address = normalEmail(String(visitorOf(records)?.values.email ?? ''));
    if (given)
      return {
        code: 'not-confirmed',
        text: `${address.ok ? address.email : 'The visitor'} did not confirm within ${counted(days, 'day')}.`,
      };
    if (!address.ok)
      return { code: 'not-asked', text: 'The visitor would be asked to confirm, and no e-mail address is known.' };
    const template = templateOf(destination, key);
    const values = { ...mailValues({ records, route, submission, destination }), confirm: { link: link(0) } };
    const mail = template && renderMail(textsFor(template, submission.visit.language), values);
    if (!mail)
      return {
        code: 'not-asked',
        text: template
          ? `The visitor cannot be asked to confirm: the template “${template.name}” cannot be worked out with this submission.`
          : `The visitor cannot be asked to confirm: there is no template “${key}” any more.`,
      };
    return {
      code: 'confirmation',
      text: `Nothing is written until ${address.email} confirms by the mail that was sent there.`,
      asks: [{ for: 'confirmation', hold: index, to: address.email, days, mail }],
    };
  },
  adopt: (settings, adopt) => ({ ...settings, template: adopt('template', settings.template) }),
});

export function isConfirmation(hold: Hold): hold is ConfirmationHold {
  return hold.for === 'confirmation';
}
