import { z } from '../../schema-library';
import { namedOwner, type OwnerRule } from '../../assignment/choose-owner';
import { fieldOf, type Destination } from '../../destination/destination';
import type { Condition, Hold } from '../../definition/route-definition';
import { condition, ownerRuleShape } from '../../definition/shapes';
import { ownerInWords } from '../../effect/owner-in-words';
import { whoSent } from '../../payload/who';
import { approvalMail } from '../approval-mail';
import { defineHold } from '../hold';

/** A person says yes before anything is written. */
export interface ApprovalHold extends Hold {
  for: 'approval';
  /** Who is asked. */
  by: OwnerRule;
  /** Whether they are written a mail, with a link that needs no signing in; everybody of a team is. */
  byMail?: boolean;
  /** Otherwise nobody is asked. */
  when?: Condition;
}

/** For how many days a link in a mail can be answered by. */
const DAYS = 14;

export const approval = defineHold<ApprovalHold>({
  for: 'approval',
  label: 'Approval',
  shape: z.strictObject({
    for: z.literal('approval'),
    by: ownerRuleShape,
    byMail: z.boolean().optional(),
    when: condition.optional(),
  }) as unknown as z.ZodType<ApprovalHold>,
  example: {
    settings: { for: 'approval', by: { team: 'design' }, byMail: true },
    words: 'somebody of the team design says yes first, asked by mail',
  },
  check: () => [],
  describe: (hold, { destination }) => `${asked(hold, destination)} first${hold.byMail ? ', asked by mail' : ''}`,
  passed: ({ by, note }) => `${by} said yes${note ? `: ${note}` : ''}`,
  plan(hold, { index, given, submission, destination, route, would, link }) {
    if (given?.approved) return null;
    if (given) return { code: 'denied', text: `${given.by} said no${given.note ? `: ${given.note}` : ''}.` };
    const people = hold.byMail ? peopleAsked(hold.by, submission.origin?.enteredBy, destination) : [];
    const { who, email } = whoSent(submission.payload);
    const about = { who: who || email || 'somebody', route: route.name, would: people.length ? would() : [] };
    return {
      code: 'approval',
      text: `Nothing is written until ${asked(hold, destination)}.`,
      asks: people.map(({ key: person, email: to }, ask) => {
        const mail = approvalMail({ ...about, link: link(ask), days: DAYS });
        return { for: 'approval', hold: index, to, person, days: DAYS, mail };
      }),
    };
  },
  owner: {
    of: ({ by }) => ({ rule: by, way: ['by'] }),
    put: (settings, by) => ({ ...settings, by }),
  },
});

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
  const others = !named ? [] : 'person' in named ? [named.person] : [...(destination.teams?.[named.team] ?? [])].sort();
  const keys = 'enteredBy' in rule && enteredBy !== undefined && active.has(enteredBy) ? [enteredBy] : others;
  return keys.flatMap((key) => {
    const email = destination.people?.[key]?.email;
    return active.has(key) && email ? { key, email } : [];
  });
}
