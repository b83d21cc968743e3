import { z } from '../../schema-library';
import type { OwnerRule } from '../../assignment/choose-owner';
import type { FollowUp } from '../../definition/route-definition';
import { condition, name, ownerRuleShape, value } from '../../definition/shapes';
import { channelOf } from '../../destination/destination';
import { warning } from '../../problem';
import { counted } from '../../text';
import type { Value } from '../../value/value';
import { defineEffect, type EffectStep } from '../effect';
import { ownerInWords } from '../owner-in-words';

interface MessageFollowUp extends FollowUp {
  do: 'message';
  to: { channel: string } | { person: OwnerRule };
  by: 'chat' | 'text';
  body: Value;
  /** The write whose record the message links to. */
  link?: string;
  /** Whether it waits for the working hours of whoever gets it. */
  inHours?: true;
  /** For how many minutes it waits for others, to go out as one with them. */
  together?: number;
}

/** A day in minutes. */
const LONGEST_TOGETHER = 1_440;

/** Tells a channel, or a colleague, that something came. */
export const message = defineEffect<MessageFollowUp>({
  do: 'message',
  label: 'Message',
  description: 'Tells a channel by chat, or a colleague by text message, with a link to the record.',
  shape: z.strictObject({
    do: z.literal('message'),
    on: name.optional(),
    to: z.union([z.strictObject({ channel: z.string().max(200) }), z.strictObject({ person: ownerRuleShape })]),
    by: z.enum(['chat', 'text']),
    body: value,
    link: name.optional(),
    inHours: z.literal(true).optional(),
    together: z.number().int().min(1).max(LONGEST_TOGETHER).optional(),
    when: condition.optional(),
  }) as unknown as z.ZodType<MessageFollowUp>,
  example: {
    settings: {
      do: 'message',
      to: { person: { person: 'ida' } },
      by: 'text',
      body: { parts: [{ text: 'Somebody wrote.' }] },
    },
    words: 'ida gets a text message',
  },
  withValues: (settings, change) => ({ ...settings, body: change(settings.body, ['body']) }),
  check({ to, by, body, link }, { route, destination }) {
    const problems = [];
    if (!body.parts.length)
      problems.push({ code: 'blank-text' as const, text: 'Say what the message says.', way: ['body'] });
    if (link !== undefined && !route.writes.some(({ as }) => as === link))
      problems.push({ code: 'unknown-write' as const, text: `No write is called “${link}”.`, way: ['link'] });
    if ('person' in to) {
      if (by === 'chat')
        problems.push({
          code: 'message-does-not-fit' as const,
          text: 'A colleague gets text messages; chat goes to a channel.',
          way: ['by'],
        });
      return problems;
    }
    const channel = channelOf(destination, to.channel);
    if (!channel)
      problems.push({
        code: 'unknown-channel' as const,
        text: to.channel ? `There is no channel “${to.channel}”.` : 'Say which channel is told.',
        way: ['to', 'channel'],
      });
    else if (channel.by !== by)
      problems.push({
        code: 'message-does-not-fit' as const,
        text: `The channel ${channel.name} takes ${channel.by === 'chat' ? 'chat' : 'text'} messages.`,
        way: ['by'],
      });
    return problems;
  },
  describe({ to, by, inHours, together }, { destination }) {
    const whom =
      'channel' in to
        ? to.channel
          ? `the channel ${channelOf(destination, to.channel)?.name ?? to.channel}`
          : 'no channel yet'
        : ownerInWords(to.person, 'contact', destination);
    const when = [
      ...(inHours ? ['in working hours'] : []),
      ...(together ? [`in one with others within ${counted(together, 'minute')}`] : []),
    ];
    return [`${whom} gets a ${by === 'chat' ? 'chat' : 'text'} message`, ...when].join(', ');
  },
  plan({ to, by, body, link, inHours, together }, { record, records, destination, workOut, chooseOwner }): EffectStep {
    const said = workOut(body);
    const about = records.find(({ as }) => as === link) ?? record;
    const linked = {
      ...(about ? { record: { kind: about.kind, id: about.id } } : {}),
      ...(together ? { together } : {}),
    };
    const waits: Record<string, true> = inHours ? { inHours } : {};
    const text = said.text.trim();
    if (!text) return { words: 'No message: it would say nothing', problems: said.problems };
    if ('channel' in to) {
      const called = channelOf(destination, to.channel)?.name ?? to.channel;
      return {
        words: `Message to ${called}`,
        problems: said.problems,
        out: { kind: by, to: called, body: { channel: to.channel, text, ...waits }, ...linked },
      };
    }
    const { owner, problems } = chooseOwner(to.person);
    if (owner === null) return { words: 'Message to nobody', problems: [...said.problems, ...problems] };
    const number = destination.people?.[owner]?.phone;
    if (!number)
      problems.push(
        warning('no-number', `The text message cannot reach “${owner}”: no phone number is known of them.`),
      );
    return {
      words: `Text message to ${ownerInWords({ person: owner }, 'contact', destination)}`,
      problems: [...said.problems, ...problems],
      ...(number ? { out: { kind: by, to: owner, body: { number, text, ...waits }, ...linked } } : {}),
    };
  },
  owner: {
    of: ({ to }) => ('person' in to ? { rule: to.person, way: ['to', 'person'] } : null),
    put: (settings, person) => ({ ...settings, to: { person } }),
  },
  adopt: (settings, adopt) =>
    'channel' in settings.to ? { ...settings, to: { channel: adopt('channel', settings.to.channel) } } : settings,
});
