import { buffer } from 'node:stream/consumers';
import { Inject, Injectable, type OnApplicationBootstrap, type OnModuleInit } from '@nestjs/common';
import type { ReportMail, SourceRow, SourcesReport } from '@haycart/api';
import { comparedDays, mailedReport, recordWord, recordWords, type Days, type Figures } from '@haycart/core';
import { plainToInstance } from 'class-transformer';
import { and, asc, eq, sql } from 'drizzle-orm';
import { MailsService, type Mail } from '../../messaging/mail/mails.service';
import type { Config } from '../../platform/config';
import { Database, type WorkspaceTx } from '../../platform/database/database';
import { Values } from '../../platform/database/values';
import { ProblemError } from '../../platform/errors/problem-error';
import { EXPORT_TYPES } from '../../platform/export-file';
import { Jobs } from '../../platform/jobs/jobs';
import type { Tried } from '../../platform/outgoing/posted';
import { newId } from '../../platform/new-id';
import { CONFIG } from '../../platform/tokens';
import { DestinationService } from '../../destination/destination.service';
import { listSetting } from '../../records/lists/list-setting';
import { PeopleService } from '../../workspaces/people.service';
import { narrowedRecords } from '../narrowing/narrowing';
import { exportSources } from '../sources-export';
import { SourcesQuery, wishOf } from '../sources-query';
import { SourcesService } from '../sources.service';
import { nextMonday } from './next-monday';
import { reportMail } from './tables';

const JOB = 'mail-report';
/** The rows that stand in the mail itself; the attached file has all. */
const TOLD = 12;
const PATIENCE_MS = 60_000;
/** The most views mailed to one person. */
const MOST_MAILS = 20;

interface Payload {
  workspaceId: string;
  id: string;
}

/** Mails views of where business came from to those who asked for them, each Monday. */
@Injectable()
export class ReportMails implements OnModuleInit, OnApplicationBootstrap {
  constructor(
    @Inject(CONFIG) private readonly config: Pick<Config, 'publicUrl' | 'background'>,
    @Inject(Database) private readonly database: Database,
    @Inject(Jobs) private readonly jobs: Jobs,
    @Inject(MailsService) private readonly mails: MailsService,
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(SourcesService) private readonly sources: SourcesService,
    @Inject(DestinationService) private readonly destinations: DestinationService,
  ) {}

  onModuleInit(): void {
    this.jobs.register<Payload>({
      name: JOB,
      work: (payload, stopping) => this.#onMonday(payload, stopping),
      givenUp: (payload, reason) => this.#goOn(payload, reason),
    });
  }

  /** What was to be mailed while the server was down is mailed as well. */
  async onApplicationBootstrap(): Promise<void> {
    if (!this.config.background) return;
    for (const { id: workspaceId } of await this.database.gate<{ id: string }>('workspaces')) {
      const all = await this.database.inWorkspace(workspaceId, (tx) =>
        tx.db.select({ id: reportMail.id }).from(reportMail).where(eq(reportMail.workspaceId, tx.workspaceId)),
      );
      for (const { id } of all) await this.#watch({ workspaceId, id });
    }
  }

  /** What somebody is mailed, the first that was asked for first. */
  async of(tx: WorkspaceTx, personId: string): Promise<ReportMail[]> {
    const rows = await tx.db
      .select()
      .from(reportMail)
      .where(and(eq(reportMail.workspaceId, tx.workspaceId), eq(reportMail.personId, personId)))
      .orderBy(asc(reportMail.createdAt), asc(reportMail.id));
    const nextAt = nextMonday(new Date()).toISOString();
    return rows.map(({ id, name, query, sentAt, error }) => ({
      id,
      name,
      query,
      sentAt: sentAt?.toISOString() ?? null,
      error,
      nextAt,
    }));
  }

  async add(tx: WorkspaceTx, personId: string, name: string, query: SourcesQuery): Promise<string> {
    const own = await this.of(tx, personId);
    if (own.length >= MOST_MAILS)
      throw new ProblemError('refused', `At most ${MOST_MAILS} views are mailed to one person. Remove one first.`);
    // Refused now rather than on Monday.
    const setting = listSetting(await this.destinations.load(tx), undefined);
    narrowedRecords(wishOf(query, setting).narrowing, 'r.id', setting, new Values());
    const id = newId();
    await tx.db
      .insert(reportMail)
      .values({ workspaceId: tx.workspaceId, id, personId, name, query: { ...query } as Record<string, string> });
    // A plan without a mail does nothing, should this transaction fail.
    await this.#watch({ workspaceId: tx.workspaceId, id });
    return id;
  }

  /** @throws ProblemError when it is not theirs. */
  async remove(tx: WorkspaceTx, personId: string, id: string): Promise<void> {
    const gone = await tx.db
      .delete(reportMail)
      .where(and(eq(reportMail.workspaceId, tx.workspaceId), eq(reportMail.personId, personId), eq(reportMail.id, id)))
      .returning({ id: reportMail.id });
    if (!gone.length) throw new ProblemError('not-found', 'There is no such mail of yours.');
  }

  /** Mails it once, now; whatever went wrong is kept with it. */
  async mailNow(payload: Payload): Promise<void> {
    const tried = await this.#mail(payload, AbortSignal.timeout(PATIENCE_MS));
    if (tried) await this.#keep(payload, tried.ok ? null : tried.why);
  }

  /** Has it mailed on the next Monday, unless that is planned already. */
  async #watch({ workspaceId, id }: Payload): Promise<void> {
    const seconds = (nextMonday(new Date()).getTime() - Date.now()) / 1_000;
    await this.jobs.add(JOB, { workspaceId, id } as Payload, `${JOB} ${id}`, seconds);
  }

  /** Throws when it should be tried again; what will never work is kept with the reason. */
  async #onMonday(payload: Payload, stopping: AbortSignal): Promise<void> {
    const tried = await this.#mail(payload, stopping);
    if (!tried) return;
    if (!tried.ok && tried.again) throw new Error(tried.why);
    await this.#goOn(payload, tried.ok ? null : tried.why);
  }

  /** Null when nobody wants it any more. */
  async #mail({ workspaceId, id }: Payload, stopping: AbortSignal): Promise<Tried | null> {
    const mail = await this.database.atOneMoment(workspaceId, (tx) => this.#written(tx, id));
    return mail && this.mails.send(workspaceId, mail, stopping);
  }

  async #goOn(payload: Payload, error: string | null): Promise<void> {
    await this.#keep(payload, error);
    await this.#watch(payload);
  }

  async #keep({ workspaceId, id }: Payload, error: string | null): Promise<void> {
    await this.database.inWorkspace(workspaceId, (tx) =>
      tx.db
        .update(reportMail)
        .set(error === null ? { sentAt: sql`now()`, error } : { error })
        .where(and(eq(reportMail.workspaceId, tx.workspaceId), eq(reportMail.id, id))),
    );
  }

  /** The mail as it is now; null when nobody wants it any more. */
  async #written(tx: WorkspaceTx, id: string): Promise<Mail | null> {
    const [asked] = await tx.db
      .select({ name: reportMail.name, query: reportMail.query, personId: reportMail.personId })
      .from(reportMail)
      .where(and(eq(reportMail.workspaceId, tx.workspaceId), eq(reportMail.id, id)));
    const reader = asked && (await this.#activePerson(tx, asked.personId));
    if (!reader) return null;
    const setting = listSetting(await this.destinations.load(tx), reader.key);
    const wish = wishOf(plainToInstance(SourcesQuery, { by: 'channel,source,campaign', ...asked.query }), setting);
    const days = daysBetween(wish.from, wish.to);
    const earlier = comparedDays(days, 'before');
    const report = await this.sources.report(tx, wish, setting);
    const before = await this.sources.report(
      tx,
      { ...wish, from: new Date(earlier.from), to: new Date(Date.parse(earlier.to) + DAY) },
      setting,
    );
    const first = firstRows(report);
    const { destination } = setting;
    const { subject, text } = mailedReport({
      name: asked.name,
      days,
      currency: report.currency,
      dealWords: { one: recordWord(destination, 'deal'), many: recordWords(destination, 'deal') },
      figures: report.figures,
      total: report.total,
      before: before.total,
      rows: first.slice(0, TOLD).map((row) => ({ name: nameOf(row, report), figures: row as Figures })),
      allRows: first.length,
      link: this.#link(asked.query),
    });
    const bytes = await buffer(exportSources('csv', report, wish.by));
    return {
      to: reader.email,
      key: `${id}.${days.to}`,
      subject,
      text,
      html: null,
      attachments: [{ name: `sources ${days.from} to ${days.to}.csv`, type: EXPORT_TYPES.csv, bytes }],
    };
  }

  async #activePerson(tx: WorkspaceTx, id: string): Promise<{ key: string; email: string } | null> {
    const found = await this.people.one(tx, id);
    return (await this.people.choices(tx)).find(({ key, active }) => active && key === found?.key) ?? null;
  }

  #link(query: Readonly<Record<string, string | number>>): string | null {
    if (this.config.publicUrl === null) return null;
    const params = new URLSearchParams(Object.entries(query).map(([name, value]) => [name, String(value)]));
    return `${this.config.publicUrl}/sources?${String(params)}`;
  }
}

const DAY = 86_400_000;

function daysBetween(from: Date, to: Date): Days {
  const day = (at: number) => new Date(at).toISOString().slice(0, 10);
  return { from: day(from.getTime()), to: day(to.getTime() - DAY) };
}

/** The rows of the outermost part. */
function firstRows({ groups, split }: SourcesReport): SourceRow[] {
  return groups.filter(({ channel, source }) => (split ? channel === undefined : source === undefined));
}

function nameOf({ splitValue, channel }: SourceRow, { split }: SourcesReport): string {
  const value = split ? splitValue : channel;
  if (!value) return 'unknown';
  return split && Object.hasOwn(split.names, value) ? split.names[value]! : value;
}
