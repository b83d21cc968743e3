import { z } from '../../schema-library';
import type { FollowUp } from '../../definition/route-definition';
import { condition, name, value } from '../../definition/shapes';
import type { JsonValue } from '../../json';
import { daysOrUsual, whatIsWrongWithDays } from '../../mail/days-to-confirm';
import { CONFIRM_LINK, LINK_TO_COME, missingLink } from '../../mail/mail-links';
import { renderMail, textsFor } from '../../mail/mail-template';
import { warning, type Problem } from '../../problem';
import { normalEmail } from '../../reading/email';
import { CHANNEL_WORDS, CONSENT_CHANNELS, type ConsentChannel } from '../../consent/consent';
import type { Value } from '../../value/value';
import { defineEffect, type EffectContext, type EffectKind } from '../effect';
import { mailValues, templateOf, wrongNames } from '../mail-values';

interface ConsentFollowUp extends FollowUp {
  do: 'consent';
  /** A contact. */
  on: string;
  channel: ConsentChannel;
  state: 'given' | 'withdrawn';
  /** The exact words to which somebody agreed. */
  words: Value;
  /** The key of a template: until its reader confirms, what is given is pending. Of e-mail alone. */
  confirm?: string;
  /** For how long it can be confirmed, in whole days as an ISO 8601 duration: `P7D`, which is meant when not said. */
  within?: string;
}

/** Keeps what a contact agreed to, with the exact words, the time and the place. */
export const consent = defineEffect<ConsentFollowUp>({
  do: 'consent',
  label: 'Consent',
  description: 'Keeps what a contact agreed to, or withdrew, with the exact words; at once, or once it is confirmed.',
  shape: z.strictObject({
    do: z.literal('consent'),
    on: name,
    channel: z.enum(CONSENT_CHANNELS),
    state: z.enum(['given', 'withdrawn']),
    words: value,
    confirm: z.string().max(200).optional(),
    within: z.string().max(10).optional(),
    when: condition.optional(),
  }) as unknown as z.ZodType<ConsentFollowUp>,
  example: {
    settings: {
      do: 'consent',
      on: 'person',
      channel: 'email',
      state: 'given',
      words: { parts: [{ text: 'You may write to me.' }] },
      confirm: 'confirm',
    },
    words: 'consent to e-mail is pending on the contact until the mail “Please confirm” is answered',
  },
  withValues: ({ words, ...settings }, change) => ({ ...settings, words: change(words, ['words']) }),
  check({ on, channel, state, words, confirm, within }, { route, destination }) {
    const problems: ReturnType<EffectKind['check']> = [];
    if (route.writes.some(({ as, record }) => as === on && record !== 'contact'))
      problems.push({ code: 'needs-contact', text: 'Consent is kept with a contact alone.', way: ['on'] });
    if (!words.parts.length)
      problems.push({
        code: 'blank-text',
        text: 'Say in which words, as they stand in the form: they are what somebody agreed to.',
        way: ['words'],
      });
    if (confirm === undefined) return problems;
    if (channel !== 'email' || state !== 'given')
      problems.push({
        code: 'wrong-value',
        text: 'By mail somebody confirms that they agree to e-mail, and nothing else.',
        way: ['confirm'],
      });
    const wrongDays = whatIsWrongWithDays(within);
    if (wrongDays) problems.push({ code: 'wrong-value', text: wrongDays, way: ['within'] });
    const template = templateOf(destination, confirm);
    if (!template)
      return [
        ...problems,
        {
          code: 'unknown-template',
          text: confirm ? `There is no template “${confirm}”.` : 'Say by which template.',
          way: ['confirm'],
        },
      ];
    const texts = wrongNames(template, route, destination, [CONFIRM_LINK]);
    const missing = missingLink(template, CONFIRM_LINK, 'the visitor confirms');
    if (missing) texts.push(missing);
    return [...problems, ...texts.map((text) => ({ code: 'template-does-not-fit' as const, text, way: ['confirm'] }))];
  },
  describe({ channel, state, confirm }, { destination }) {
    const to = `consent to ${CHANNEL_WORDS[channel]}`;
    if (confirm === undefined) return `${to} is noted as ${state} on the contact`;
    const template = templateOf(destination, confirm);
    const mail = template ? `the mail “${template.name}”` : 'a mail';
    return `${to} is pending on the contact until ${mail} is answered`;
  },
  plan({ channel, state, words: said, confirm, within }, context) {
    const { record, submission, workOut } = context;
    const to = `Consent to ${CHANNEL_WORDS[channel]}`;
    if (record?.kind !== 'contact') return { words: to };
    const { text, problems } = workOut(said);
    const words = text.trim();
    if (!words) return { words: `${to} is not noted: its words are blank`, problems };
    const made = { make: 'consent' as const, channel, words, place: placeOf(submission) };
    if (confirm === undefined) return { words: `${to} ${state}`, problems, made: { ...made, state } };
    const asked = askFor(confirm, String(record.values.email ?? ''), context);
    return {
      words: `${to} pending${asked.to ? ` until ${asked.to} confirms` : ''}`,
      problems: asked.problem ? [...problems, asked.problem] : problems,
      made: { ...made, state: 'pending' },
      ...(asked.mail
        ? {
            out: {
              kind: 'mail',
              to: asked.to,
              body: { ...asked.mail, consent: 'pending', days: daysOrUsual(within) } as unknown as JsonValue,
              record: { kind: record.kind, id: record.id },
            },
          }
        : {}),
    };
  },
  adopt: ({ confirm, ...settings }, adopt) => ({
    ...settings,
    ...(confirm === undefined ? {} : { confirm: adopt('template', confirm) }),
  }),
});

/** The mail by which somebody is asked; or why there is none, so that it stays pending. */
function askFor(key: string, email: string, context: EffectContext): AskMail {
  const template = templateOf(context.destination, key);
  const address = normalEmail(email);
  if (!template)
    return {
      to: '',
      problem: warning('unknown-template', `There is no template “${key}” any more, so nobody is asked to confirm.`),
    };
  if (!address.ok)
    return { to: '', problem: warning('no-address', 'Nobody is asked to confirm: no e-mail address is known.') };
  const mail = renderMail(textsFor(template, context.submission.visit.language), {
    ...mailValues(context),
    confirm: { link: LINK_TO_COME },
  });
  if (mail) return { to: address.email, mail };
  const text = `The template “${template.name}” cannot be worked out with this submission, so nobody is asked to confirm.`;
  return { to: '', problem: warning('template-failed', text) };
}

interface AskMail {
  to: string;
  mail?: ReturnType<typeof renderMail>;
  problem?: Problem;
}

/** Where it was said: the page on which the form stood, where that is known. */
function placeOf({ intake, visit }: EffectContext['submission']): string {
  return visit.page ? `on ${visit.page}` : `by ${intake}`;
}
