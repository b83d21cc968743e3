import {
  emptyProfile,
  KnownRecords,
  planRun,
  profileDateOrder,
  profileKind,
  profileLabel,
  readBody,
  ProfileLearner,
  routeFromOutline,
  type Destination,
  type JsonObject,
  type Plan,
} from '@haycart/core';
import { FACTS, type Fact, type PayloadStyle } from './payload-style';
import { PAYLOAD_STYLES } from './payload-styles';
import { SENDERS, type Sender } from './senders';

/** How many of how many. */
export interface Share {
  right: number;
  of: number;
}

/** How one style was read. */
export interface StyleRead {
  style: PayloadStyle;
  /** Values of the first draft's records that are what the sender meant. */
  facts: Share;
  /** Fields of the records that hold something else. */
  wrong: string[];
  missing: Fact[];
  /** Questions shown in the sender's words. */
  questions: Share;
}

/** Where a draft keeps each fact. */
const KEPT: Record<Fact, readonly [record: string, field: string]> = {
  first: ['contact', 'first_name'],
  last: ['contact', 'last_name'],
  email: ['contact', 'email'],
  phone: ['contact', 'phone'],
  company: ['company', 'name'],
  country: ['contact', 'country'],
  role: ['contact', 'job_title'],
  message: ['deal', 'message'],
};

/** Reads each style: the profile of eight submissions, the first draft made of it, and what that writes for each sender. */
export function readStyles(destination: Destination): StyleRead[] {
  return PAYLOAD_STYLES.map((style) => {
    const payloads = SENDERS.map((sender, index) => payloadOf(style.body(sender, index)));
    const learner = new ProfileLearner(emptyProfile());
    payloads.forEach((payload, index) => learner.learn(payload, `2027-03-1${index}T09:00:00Z`));
    const { profile } = learner;
    const seen = Object.values(profile.fields).map((field) => ({
      key: field.key,
      label: profileLabel(field),
      kind: profileKind(field),
      filled: field.filled,
      values: Object.entries(field.values).map(([value, count]) => ({ value, count })),
      dateOrder: profileDateOrder(field),
    }));
    const route = routeFromOutline('enquiry', { name: 'Enquiries', intake: 'web', seen }, destination);
    const has = style.has ?? FACTS;
    const facts: Share = { right: 0, of: has.length };
    const wrong = new Set<string>();
    const written = payloads.map((payload, index) =>
      values(
        planRun(
          route,
          { id: `s${index}`, intake: 'web', receivedAt: '2027-03-20T09:00:00Z', payload, visit: {} as never },
          new KnownRecords([]),
          { destination, newIds: Object.fromEntries(route.writes.map(({ as }) => [as, `new:${as}`])) },
        ),
      ),
    );
    const missing: Fact[] = [];
    for (const fact of FACTS) {
      const right = SENDERS.every((sender, index) => written[index]![KEPT[fact].join(' ')] === wanted(sender, fact));
      if (has.includes(fact)) {
        if (right) facts.right += 1;
        else missing.push(fact);
      }
      SENDERS.forEach((sender, index) => {
        const value = written[index]![KEPT[fact].join(' ')];
        if (value !== undefined && value !== wanted(sender, fact)) wrong.add(`${KEPT[fact].join(' ')}: ${value}`);
      });
    }
    const asked = Object.values(style.asks ?? {});
    const labels = new Set(Object.values(profile.fields).map(profileLabel));
    return {
      style,
      facts,
      wrong: [...wrong],
      missing,
      questions: { right: asked.filter((question) => labels.has(question)).length, of: asked.length },
    };
  });
}

function payloadOf(body: ReturnType<PayloadStyle['body']>): JsonObject {
  const [format, text] =
    body instanceof URLSearchParams
      ? (['urlencoded', body.toString()] as const)
      : (['json', JSON.stringify(body)] as const);
  const read = readBody(format, new TextEncoder().encode(text));
  if (!read.ok) throw new Error(read.problem.text);
  return read.value as JsonObject;
}

function wanted(sender: Sender, fact: Fact): string {
  return fact === 'phone' ? sender.e164 : sender[fact];
}

/** What a plan writes, by record and field. */
function values(plan: Plan): Record<string, string> {
  return Object.fromEntries(
    plan.writes.flatMap(({ record, fields }) =>
      fields.flatMap(({ field, after }) =>
        after === null || after === undefined ? [] : [[`${record} ${field}`, String(after)]],
      ),
    ),
  );
}
