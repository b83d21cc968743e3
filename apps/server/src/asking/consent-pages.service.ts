import { Inject, Injectable } from '@nestjs/common';
import { confirmWords, consentWords } from '@haycart/core';
import { FormPages, type AnsweredPage } from '../forms/form-pages.service';
import { markup } from '../forms/html';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { ConsentLinks, type KeptConsentLink } from '../records/consents/consent-links.service';
import { ConsentsService } from '../records/consents/consents.service';
import { NO_SUCH_LINK } from './no-such-link';

/** The pages on which a contact confirms that they agree to something, or wants no more of it. */
@Injectable()
export class ConsentPages {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(ConsentLinks) private readonly links: ConsentLinks,
    @Inject(ConsentsService) private readonly consents: ConsentsService,
    @Inject(FormPages) private readonly pages: FormPages,
  ) {}

  open(secret: string, languages?: string): Promise<AnsweredPage> {
    return this.#with(secret, languages, (tx, link) => this.#page(tx, link, languages));
  }

  /** Takes what the link says, once; whoever is too late is told so. */
  say(secret: string, languages?: string): Promise<AnsweredPage> {
    return this.#with(secret, languages, async (tx, link) => {
      if (link.isUsed || link.isLate) return this.#page(tx, link, languages);
      const { contact, channel, says, address } = link;
      const held = await this.consents.held(tx, contact, channel);
      const words = says === 'given' ? (held?.words ?? '') : consentWords('en', says, address).button;
      if (held && held.state !== says)
        await this.consents.addOwn(
          tx,
          held.contact,
          { channel, state: says, words, place: 'by the link in a mail' },
          address,
        );
      await this.links.use(tx, secret);
      return this.#page(tx, { ...link, isUsed: true }, languages);
    });
  }

  async #with(
    secret: string,
    languages: string | undefined,
    work: (tx: WorkspaceTx, link: KeptConsentLink) => Promise<AnsweredPage>,
  ): Promise<AnsweredPage> {
    const workspaceId = secret.length > 100 ? null : await this.links.workspaceOf(secret);
    if (!workspaceId) return this.pages.say(null, null, languages, () => NO_SUCH_LINK);
    return this.database.inWorkspace(workspaceId, async (tx) => {
      const link = await this.links.bySecret(tx, secret);
      return link ? work(tx, link) : this.pages.say(null, null, languages, () => NO_SUCH_LINK);
    });
  }

  async #page(tx: WorkspaceTx, link: KeptConsentLink, languages: string | undefined): Promise<AnsweredPage> {
    const { contact, channel, says, address, isLate, isUsed } = link;
    const said = says === 'given' ? ((await this.consents.held(tx, contact, channel))?.words ?? '') : '';
    return this.pages.say(tx, null, languages, (language) => {
      const words = consentWords(language, says, address);
      if (isUsed) return { title: words.thanks, text: words.done };
      const { late, lateText } = confirmWords(language, address);
      if (isLate) return { status: 410, title: late, text: lateText };
      const quoted = said ? { more: markup`<blockquote>${said}</blockquote>` } : {};
      return { title: words.title, text: words.text, press: words.button, ...quoted };
    });
  }
}
