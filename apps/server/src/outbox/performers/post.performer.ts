import { Inject, Injectable } from '@nestjs/common';
import { Webhook } from 'standardwebhooks';
import { Outgoing } from '../../platform/outgoing/outgoing';
import { posted } from '../../platform/outgoing/posted';
import { SigningSecrets } from '../signing-secrets.service';
import type { DueItem, Performed, Performer } from './performer';

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
    return posted(this.outgoing, { to: target, body, headers }, stopping);
  }
}
