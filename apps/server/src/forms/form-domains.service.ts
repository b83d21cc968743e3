import { randomBytes } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { proofRecord, readDomain } from '@haycart/core';
import type { FormDomainShape } from '@haycart/api';
import { and, asc, eq } from 'drizzle-orm';
import { SecretBox } from '../platform/auth/secret-box';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { nothingElse, type AlsoDone } from '../platform/database/also-done';
import { databaseFailure } from '../platform/database/failure';
import { DomainNames } from '../platform/domain-names';
import { ProblemError } from '../platform/errors/problem-error';
import { Events } from '../platform/events/events';
import { FormHosts } from './form-hosts.service';
import { formDomain } from './tables';

type Row = typeof formDomain.$inferSelect;
const MOST = 50;

/** The domains of a company's own under which its forms can be reached. One leads nowhere before it is proven to be theirs. */
@Injectable()
export class FormDomains {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(Events) private readonly events: Events,
    @Inject(DomainNames) private readonly names: DomainNames,
    @Inject(FormHosts) private readonly hosts: FormHosts,
    @Inject(SecretBox) private readonly box: SecretBox,
  ) {}

  async all(tx: WorkspaceTx): Promise<FormDomainShape[]> {
    const rows = await tx.db
      .select()
      .from(formDomain)
      .where(eq(formDomain.workspaceId, tx.workspaceId))
      .orderBy(asc(formDomain.createdAt), asc(formDomain.host));
    return rows.map((row) => this.#shape(row));
  }

  async add(tx: WorkspaceTx, text: string): Promise<FormDomainShape> {
    const read = readDomain(text);
    if ('problem' in read) throw new ProblemError('refused', read.problem);
    const { host } = read;
    const known = await this.all(tx);
    if (known.some((one) => one.host === host)) throw new ProblemError('conflict', `${host} is there already.`);
    if (known.length >= MOST)
      throw new ProblemError('refused', `There are ${MOST} domains already, the most there can be.`);
    const proof = this.box.seal(randomBytes(16).toString('hex'), `domain ${host}`);
    const [row] = await tx.db.insert(formDomain).values({ workspaceId: tx.workspaceId, host, proof }).returning();
    return this.#shape(row!);
  }

  /**
   * Looks into the domain's DNS whether it is theirs. One that was proven before stays so when nobody answers, and ends when
   * its proof is gone.
   */
  async check(workspaceId: string, host: string, also: AlsoDone = nothingElse): Promise<FormDomainShape> {
    const { proof, provenAt } = await this.database.inWorkspace(workspaceId, (tx) => this.#one(tx, host));
    const record = proofRecord(host, this.box.open(proof, `domain ${host}`));
    const texts = await this.names.texts(record.name);
    const proven = texts.includes(record.text);
    const leads = proven && (await this.names.leadsSomewhere(host));
    const problem = proven
      ? leads
        ? null
        : `${host} leads to no machine yet. Let it point to this server, with a CNAME, A or AAAA record.`
      : texts.length
        ? `The TXT record at ${record.name} says something else: “${texts[0]!.slice(0, 80)}”.`
        : `There is no TXT record at ${record.name} yet. It can take an hour until a new one is seen.`;
    const checked = await this.database.inWorkspace(workspaceId, async (tx) => {
      const change = { provenAt: proven ? (provenAt ?? new Date()) : null, checkedAt: new Date(), problem };
      const row = await this.#set(tx, host, change);
      await this.events.tell(tx, 'form-domains');
      await also(tx);
      return this.#shape(row);
    });
    await this.hosts.read();
    return checked;
  }

  async remove(tx: WorkspaceTx, host: string): Promise<void> {
    await this.#one(tx, host);
    await tx.db.delete(formDomain).where(this.#at(tx, host));
    await this.events.tell(tx, 'form-domains');
  }

  async #one(tx: WorkspaceTx, host: string): Promise<Row> {
    const [row] = await tx.db.select().from(formDomain).where(this.#at(tx, host));
    if (!row) throw new ProblemError('not-found', `There is no domain ${host.slice(0, 100)}.`);
    return row;
  }

  async #set(tx: WorkspaceTx, host: string, change: Partial<Row>): Promise<Row> {
    try {
      const [row] = await tx.db.update(formDomain).set(change).where(this.#at(tx, host)).returning();
      if (!row) throw new ProblemError('not-found', `${host} was removed meanwhile.`);
      return row;
    } catch (cause) {
      if (databaseFailure(cause) !== 'refused') throw cause;
      throw new ProblemError('conflict', `${host} belongs to another workspace here, which must remove it first.`);
    }
  }

  #at(tx: WorkspaceTx, host: string) {
    return and(eq(formDomain.workspaceId, tx.workspaceId), eq(formDomain.host, host));
  }

  #shape({ host, proof, provenAt, checkedAt, problem }: Row): FormDomainShape {
    return {
      host,
      record: proofRecord(host, this.box.open(proof, `domain ${host}`)),
      provenAt: provenAt?.toISOString() ?? null,
      checkedAt: checkedAt?.toISOString() ?? null,
      problem,
    };
  }
}
