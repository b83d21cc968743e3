import { Inject, Injectable } from '@nestjs/common';
import type { Config } from '../../platform/config';
import { consentAt } from '../../platform/addresses';
import { Database } from '../../platform/database/database';
import { oneAtATime } from '../../platform/database/one-at-a-time';
import { CONFIG } from '../../platform/tokens';
import { ConsentLinks } from '../../records/consents/consent-links.service';
import { ConsentsService } from '../../records/consents/consents.service';
import type { DueItem } from './performer';

/** What a mail needs of its contact’s consent to e-mail before it goes out. */
export type NeededConsent =
  | { consent: 'given' }
  /** It asks to confirm, which works for some days. */
  | { consent: 'pending'; days: number };

/** The link for its reader; or why it does not go out. */
export type Agreed = { link: string } | { why: string };

/** Looks at the last moment whether a contact wants a mail, since that may have changed since it was put out. */
@Injectable()
export class MailConsent {
  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(Database) private readonly database: Database,
    @Inject(ConsentLinks) private readonly links: ConsentLinks,
    @Inject(ConsentsService) private readonly consents: ConsentsService,
  ) {}

  agreed({ workspaceId, record, target: address, key }: DueItem, needed: NeededConsent): Promise<Agreed> {
    return this.database.inWorkspace(workspaceId, async (tx) => {
      const held = record && (await this.consents.held(tx, record.id, 'email'));
      if (!held) return { why: 'The contact is gone, so nobody is known who agreed to it.' };
      const { contact, state } = held;
      const makeLink = async (says: 'given' | 'withdrawn', days: number | null): Promise<Agreed> => {
        const secret = await this.links.make(tx, key, { contact, address, channel: 'email', says }, days);
        return { link: consentAt(this.config, secret) };
      };
      if (needed.consent === 'given')
        return state === 'given' ? makeLink('withdrawn', null) : { why: WHY_NOT[state ?? 'unknown'] };
      if (state !== 'pending') return { why: state === 'given' ? 'They agreed already.' : WHY_NOT.withdrawn };
      // Two mails that go out at the same moment are not both the first.
      await oneAtATime(tx, `consent ${contact}`);
      if (await this.links.wasAsked(tx, contact, 'email', key))
        return { why: 'They were asked a moment ago, and the link of that mail does.' };
      return makeLink('given', needed.days);
    });
  }
}

const WHY_NOT = {
  unknown: 'They never agreed to e-mail.',
  pending: 'They have not confirmed yet that they agree to e-mail.',
  withdrawn: 'They want no e-mail any more.',
} as const;
