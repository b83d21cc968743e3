import { z } from '../../schema-library';
import type { JsonValue } from '../../json';
import type { FollowUp } from '../../definition/route-definition';
import type { Value } from '../../value/value';
import { condition, name, value } from '../../definition/shapes';
import { defineEffect, type EffectContext } from '../effect';

interface PostFollowUp extends FollowUp {
  do: 'post';
  to: string;
  body?: Value;
}

/** The longest address that is posted to. */
const LONGEST = 2_000;

/** Sends what was written to an address as JSON, signed as Standard Webhooks defines. */
export const post = defineEffect<PostFollowUp>({
  do: 'post',
  label: 'Post',
  description: 'Sends the submission and the records to an address as JSON, signed as Standard Webhooks defines.',
  shape: z.strictObject({
    do: z.literal('post'),
    to: z.string().max(LONGEST),
    on: name.optional(),
    body: value.optional(),
    when: condition.optional(),
  }) as z.ZodType<PostFollowUp>,
  example: {
    settings: { do: 'post', to: 'https://hooks.example/enquiries' },
    words: 'the records are posted to hooks.example',
  },
  withValues: (settings, change) => (settings.body ? { ...settings, body: change(settings.body, ['body']) } : settings),
  check: ({ to }) => (hostOf(to) ? [] : [{ code: 'not-an-address', text: notAnAddress(to), way: ['to'] }]),
  describe: ({ to, body }) =>
    `${body ? 'a message is' : 'the records are'} posted to ${hostOf(to) ?? 'no address yet'}`,
  plan(settings, context) {
    const host = hostOf(settings.to);
    const words = `Post to ${host ?? settings.to}`;
    if (!host) return { words };
    const own = settings.body && context.workOut(settings.body);
    return {
      words,
      problems: own?.problems ?? [],
      out: { kind: 'post', to: settings.to, body: own ? asJson(own.text) : documentOf(context) },
    };
  },
});

/** The host of an address that can be posted to; `null` where it is none. */
export function hostOf(address: string): string | null {
  if (!URL.canParse(address)) return null;
  const { protocol, host, username, password } = new URL(address);
  return /^https?:$/.test(protocol) && host && !username && !password ? host : null;
}

function notAnAddress(to: string): string {
  return to.trim() === ''
    ? 'Type the address to post to, such as https://hooks.example/enquiries.'
    : `“${to}” is no address to post to. It begins with https:// or http://, and holds no password.`;
}

/** What is sent when the route says nothing else: the submission, and each record as the run leaves it. */
function documentOf({ route, submission, records }: EffectContext): JsonValue {
  return {
    event: 'records.written',
    route: route.name,
    submission: {
      id: submission.id,
      intake: submission.intake,
      receivedAt: submission.receivedAt,
      payload: submission.payload,
    },
    records: records.map(({ as, kind, id, did, values }) => ({
      as,
      kind,
      id,
      did,
      values: values as Record<string, JsonValue>,
    })),
  };
}

/** A text that is JSON as what it says; any other as `{text}`, which many receivers of messages read. */
function asJson(text: string): JsonValue {
  try {
    const read = JSON.parse(text) as JsonValue;
    if (typeof read === 'object' && read !== null) return read;
  } catch {
    // It is a text.
  }
  return { text };
}
