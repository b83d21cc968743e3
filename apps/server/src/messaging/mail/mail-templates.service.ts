import { Inject, Injectable } from '@nestjs/common';
import { checkMailTemplate, newKey, type MailTemplate } from '@haycart/core';
import { and, asc, eq } from 'drizzle-orm';
import type { WorkspaceTx } from '../../platform/database/database';
import { databaseFailure } from '../../platform/database/failure';
import { oneAtATime } from '../../platform/database/one-at-a-time';
import { ProblemError, problemsAt } from '../../platform/errors/problem-error';
import { Events } from '../../platform/events/events';
import { plainName } from '../plain-name';
import { mailTemplate } from '../tables';

const { key, name, subject, text, html, translations } = mailTemplate;
const SHAPE = { key, name, subject, text, html, translations };

/** By what mails are written. */
@Injectable()
export class MailTemplates {
  constructor(@Inject(Events) private readonly events: Events) {}

  all(tx: WorkspaceTx): Promise<MailTemplate[]> {
    return tx.db
      .select(SHAPE)
      .from(mailTemplate)
      .where(eq(mailTemplate.workspaceId, tx.workspaceId))
      .orderBy(asc(mailTemplate.name), asc(mailTemplate.key));
  }

  async one(tx: WorkspaceTx, wanted: string): Promise<MailTemplate> {
    const [row] = await tx.db.select(SHAPE).from(mailTemplate).where(this.#of(tx, wanted));
    if (!row) throw new ProblemError('not-found', `There is no template “${wanted.slice(0, 60)}”.`);
    return row;
  }

  async add(tx: WorkspaceTx, made: Omit<MailTemplate, 'key'> & { key?: string }): Promise<MailTemplate> {
    await oneAtATime(tx, 'mail-templates');
    const taken = (await this.all(tx)).map((one) => one.key);
    const own = made.key ?? newKey(made.name, taken);
    await this.#keep(made, () => tx.db.insert(mailTemplate).values({ ...made, workspaceId: tx.workspaceId, key: own }));
    await this.events.tell(tx, 'channels');
    return this.one(tx, own);
  }

  /** What is null stays as it is, but for the HTML, which a template may do without. */
  async change(tx: WorkspaceTx, wanted: string, change: Partial<Omit<MailTemplate, 'key'>>): Promise<MailTemplate> {
    const given = Object.fromEntries(
      Object.entries(change).filter(([part, value]) => value !== undefined && (value !== null || part === 'html')),
    );
    const after = { ...(await this.one(tx, wanted)), ...given };
    await this.#keep(after, () =>
      tx.db
        .update(mailTemplate)
        .set({ ...given, changedAt: new Date() })
        .where(this.#of(tx, wanted)),
    );
    await this.events.tell(tx, 'channels');
    return this.one(tx, wanted);
  }

  /** Routes that still name it write their records, and send nothing by it. */
  async remove(tx: WorkspaceTx, wanted: string): Promise<void> {
    await this.one(tx, wanted);
    await tx.db.delete(mailTemplate).where(this.#of(tx, wanted));
    await this.events.tell(tx, 'channels');
  }

  async #keep(template: Omit<MailTemplate, 'key'>, write: () => Promise<unknown>): Promise<void> {
    plainName(template.name);
    const problems = checkMailTemplate(template);
    if (problems.length) throw new ProblemError('refused', problems[0]!.text, problemsAt(problems));
    try {
      await write();
    } catch (cause) {
      if (databaseFailure(cause) !== 'refused') throw cause;
      throw new ProblemError('conflict', `There is a template “${template.name}” already. Choose another name.`);
    }
  }

  #of(tx: WorkspaceTx, wanted: string) {
    return and(eq(mailTemplate.workspaceId, tx.workspaceId), eq(mailTemplate.key, wanted));
  }
}
