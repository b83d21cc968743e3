import { z } from '../../schema-library';
import { namedOwner, type OwnerRule } from '../../assignment/choose-owner';
import { fieldOf, type Destination } from '../../destination/destination';
import type { Condition, Hold } from '../../definition/route-definition';
import { condition, ownerRuleShape } from '../../definition/shapes';
import { ownerInWords } from '../../effect/owner-in-words';
import { mailValues, templateOf, visitorOf, wrongNames } from '../../effect/mail-values';
import { daysOrUsual, whatIsWrongWithDays } from '../../mail/days-to-confirm';
import { renderMail, textsFor, type RenderedMail } from '../../mail/mail-template';
import { whoSent } from '../../payload/who';
import { normalEmail } from '../../reading/email';
import { counted } from '../../text';
import { approvalMail, asReminder } from '../approval-mail';
import { defineHold, type GivenAnswer, type HoldContext, type HoldRule, type HoldStep, type PlannedAsk } from '../hold';

/** A person says yes before anything is written. */
export interface ApprovalHold extends Hold {
  for: 'approval';
  /** Who is asked. */
  by: OwnerRule;
  /** Whether they are written a mail, with a link that needs no signing in; everybody of a team is. */
  byMail?: boolean;
  /** If nobody has answered after so many whole days (an ISO 8601 duration: `P2D`), they are reminded by mail. */
  remindAfter?: string;
  /** Who is asked as well from then on. */
  next?: OwnerRule;
  /** The key of the template by which the visitor is written when the answer is no. */
  ifDenied?: string;
  /** Otherwise nobody is asked. */
  when?: Condition;
}

/** What a mail after a no may name: the reason that was given. */
const DENIED_WHY = 'denied.why';
const NO_VISITOR = 'The route writes neither a contact nor a lead, so it knows no address of the visitor.';

/** For how many days a link in a mail can be answered by. */
const DAYS = 14;

export const approval = defineHold<ApprovalHold>({
  for: 'approval',
  label: 'Approval',
  shape: z.strictObject({
    for: z.literal('approval'),
    by: ownerRuleShape,
    byMail: z.boolean().optional(),
    remindAfter: z.string().max(10).optional(),
    next: ownerRuleShape.optional(),
    ifDenied: z.string().max(200).optional(),
    when: condition.optional(),
  }) as unknown as z.ZodType<ApprovalHold>,
  example: {
    settings: { for: 'approval', by: { team: 'design' }, byMail: true, remindAfter: 'P2D' },
    words: 'somebody of the team Design says yes first, asked by mail and again after 2 days',
  },
  check({ byMail, remindAfter, next, ifDenied }, { route, destination }) {
    const problems: ReturnType<HoldRule['check']> = [];
    const wrongDays = remindAfter === undefined ? null : whatIsWrongWithDays(remindAfter);
    if (wrongDays) problems.push({ code: 'wrong-value', text: wrongDays, way: ['remindAfter'] });
    if (remindAfter !== undefined && !byMail)
      problems.push({
        code: 'wrong-value',
        text: 'Who is not asked by mail cannot be reminded by one.',
        way: ['remindAfter'],
      });
    if (next && remindAfter === undefined)
      problems.push({ code: 'wrong-value', text: 'Say after how many days the next are asked.', way: ['next'] });
    if (ifDenied === undefined) return problems;
    if (!route.writes.some(({ record }) => record === 'contact' || record === 'lead'))
      problems.push({ code: 'unknown-write', text: NO_VISITOR, way: ['ifDenied'] });
    const template = templateOf(destination, ifDenied);
    if (!template)
      return [
        ...problems,
        { code: 'unknown-template', text: `There is no template “${ifDenied}”.`, way: ['ifDenied'] },
      ];
    const texts = wrongNames(template, route, destination, [DENIED_WHY]);
    return [...problems, ...texts.map((text) => ({ code: 'template-does-not-fit' as const, text, way: ['ifDenied'] }))];
  },
  describe(hold, { destination }) {
    const { byMail, remindAfter, next, ifDenied } = hold;
    const after = remindAfter === undefined ? '' : ` and again after ${counted(daysOrUsual(remindAfter), 'day')}`;
    const then = next ? `, with ${ownerInWords(next, 'contact', destination)}` : '';
    const said = ifDenied === undefined ? '' : `; after a no the visitor is written ${nameOf(ifDenied, destination)}`;
    return `${asked(hold, destination)} first${byMail ? `, asked by mail${after}${then}` : ''}${said}`;
  },
  passed: ({ by, note }) => `${by} said yes${note ? `: ${note}` : ''}`,
  plan(hold, context) {
    const { given, submission, destination, route, would } = context;
    if (given?.approved) return null;
    if (given) return denied(hold, given, context);
    const { remindAfter, next } = hold;
    const enteredBy = submission.origin?.enteredBy;
    const people = hold.byMail ? peopleAsked(hold.by, enteredBy, destination) : [];
    const inDays = !hold.byMail || remindAfter === undefined ? null : daysOrUsual(remindAfter);
    const others = inDays === null || !next ? [] : peopleAsked(next, enteredBy, destination);
    const { who, email } = whoSent(submission.payload);
    const about = {
      who: who || email || 'somebody',
      route: route.name,
      would: people.length || others.length ? would() : [],
    };
    const first = people.map((one, ask) => {
      const asks = askOf(one, ask, about, context, DAYS + (inDays ?? 0));
      return inDays === null ? asks : { ...asks, reminder: { inDays, mail: asReminder(asks.mail) } };
    });
    const later = others
      .filter(({ key }) => !people.some((one) => one.key === key))
      .map((one, place) => {
        const asks = askOf(one, people.length + place, about, context, DAYS);
        // The link waits with its mail.
        return { ...asks, days: DAYS + inDays!, inDays: inDays! };
      });
    return {
      code: 'approval',
      text: `Nothing is written until ${asked(hold, destination)}.`,
      asks: [...first, ...later],
    };
  },
  withOwners: ({ next, ...settings }, change) => ({
    ...settings,
    by: change(settings.by, ['by']),
    ...(next ? { next: change(next, ['next']) } : {}),
  }),
  adopt: ({ ifDenied, ...settings }, adopt) => ({
    ...settings,
    ...(ifDenied === undefined ? {} : { ifDenied: adopt('template', ifDenied) }),
  }),
});

function askOf(
  { key: person, email: to }: { key: string; email: string },
  ask: number,
  about: { who: string; route: string; would: readonly string[] },
  { index: hold, link }: HoldContext,
  days: number,
): PlannedAsk & { mail: RenderedMail } {
  const mail = approvalMail({ ...about, link: link(ask), days });
  return { for: 'approval', hold, to, person, days, mail };
}

/** The run ends; the visitor is written, where that is wished and can be done. */
function denied(
  { ifDenied }: ApprovalHold,
  { by, note }: GivenAnswer,
  { index, records, route, submission, destination }: HoldContext,
): HoldStep {
  const step: HoldStep = { code: 'denied', text: `${by} said no${note ? `: ${note}` : ''}.` };
  if (ifDenied === undefined) return step;
  const template = templateOf(destination, ifDenied);
  const address = normalEmail(String(visitorOf(records)?.values.email ?? ''));
  const values = { ...mailValues({ records, route, submission, destination }), denied: { why: note } };
  const mail = template && renderMail(textsFor(template, submission.visit.language), values);
  const words = `Mail ${nameOf(ifDenied, destination)}`;
  const unmet = !address.ok
    ? 'no e-mail address is known'
    : mail
      ? null
      : 'its template is gone, or cannot be worked out';
  if (unmet !== null) return { ...step, effects: [{ do: 'mail', words, unmet }] };
  const out = { kind: 'mail', to: address.ok ? address.email : '', body: { ...mail! }, once: `denied.${index}` };
  return { ...step, effects: [{ do: 'mail', words: `${words} to ${out.to}`, out }] };
}

function nameOf(template: string, destination: Destination): string {
  return `“${templateOf(destination, template)?.name ?? template}”`;
}

export function isApproval(hold: Hold): hold is ApprovalHold {
  return hold.for === 'approval';
}

function asked({ by }: ApprovalHold, destination: Destination): string {
  return `${ownerInWords(by, 'contact', destination)} says yes`;
}

/** Everybody whom a rule may mean who is active and has an address, in the order of their keys. */
function peopleAsked(
  rule: OwnerRule,
  enteredBy: string | undefined,
  destination: Destination,
): { key: string; email: string }[] {
  const active = new Set(
    (fieldOf(destination, 'contact', 'owner')?.options ?? []).flatMap(({ key, retired }) => (retired ? [] : key)),
  );
  const named = namedOwner(rule);
  const others = !named
    ? []
    : 'person' in named
      ? [named.person]
      : [...(destination.teams?.[named.team]?.people ?? [])].sort();
  const keys = 'enteredBy' in rule && enteredBy !== undefined && active.has(enteredBy) ? [enteredBy] : others;
  return keys.flatMap((key) => {
    const email = destination.people?.[key]?.email;
    return active.has(key) && email ? { key, email } : [];
  });
}
