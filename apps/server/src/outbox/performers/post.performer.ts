import { Inject, Injectable } from '@nestjs/common';
import { Webhook } from 'standardwebhooks';
import { AddressRefused } from '../../platform/outgoing/allowed-address';
import { Outgoing } from '../../platform/outgoing/outgoing';
import { SigningSecrets } from '../signing-secrets.service';
import type { DueItem, Performed, Performer } from './performer';

/** The longest that a receiver may ask to wait, in seconds. */
const LONGEST_PAUSE = 6 * 3_600;
const TOLD = 200;
/** The address is gone for good (RFC 9110). */
const GONE = 410;

/** Posts JSON, signed as Standard Webhooks defines: each try of one thing has one `webhook-id`. */
@Injectable()
export class PostPerformer implements Performer {
  readonly kind = 'post';

  constructor(
    @Inject(Outgoing) private readonly outgoing: Outgoing,
    @Inject(SigningSecrets) private readonly secrets: SigningSecrets,
  ) {}

  async perform({ workspaceId, target, key, body: content }: DueItem, stopping: AbortSignal): Promise<Performed> {
    const body = JSON.stringify(content);
    const at = new Date();
    const signature = new Webhook(await this.secrets.of(workspaceId)).sign(key, at, body);
    const headers = {
      'content-type': 'application/json',
      'webhook-id': key,
      'webhook-timestamp': String(Math.floor(at.getTime() / 1_000)),
      'webhook-signature': signature,
    };
    try {
      const { status, text, retryAfter, location } = await this.outgoing.post(target, body, headers, stopping);
      if (status >= 200 && status < 300) return { ok: true };
      const said = location
        ? ` It leads to ${location.slice(0, TOLD)}; nothing follows it there: put that address in the route.`
        : saidIn(text);
      return {
        ok: false,
        why: `${new URL(target).host} answered ${status}.${said}`,
        again: status !== GONE,
        ...(retryAfter === null ? {} : { after: Math.min(retryAfter, LONGEST_PAUSE) }),
      };
    } catch (cause) {
      return { ok: false, why: (cause as Error).message, again: !(cause instanceof AddressRefused) };
    }
  }
}

/** The beginning of an answer as one line. */
function saidIn(text: string): string {
  const line = text.replace(/[\s\p{Cc}]+/gu, ' ').trim();
  return line ? ` “${line.length > TOLD ? `${line.slice(0, TOLD)}…` : line}”` : '';
}
