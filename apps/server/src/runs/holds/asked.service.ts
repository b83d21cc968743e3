import { Inject, Injectable, type OnApplicationBootstrap, type OnModuleInit } from '@nestjs/common';
import type { PlannedAsk, RenderedMail } from '@haycart/core';
import { secretHash } from '../../platform/auth/secret';
import { Database, type WorkspaceTx } from '../../platform/database/database';
import { Jobs } from '../../platform/jobs/jobs';
import { newId } from '../../platform/new-id';
import type { NewOutboxItem } from '../../outbox/outbox.service';
import { SubmissionQueue } from '../../submissions/submission-queue';
import { HoldAnswersService } from './hold-answers.service';

/** Somebody who is to be asked by mail, with the secret of their link. */
export interface NewAsk extends PlannedAsk {
  attempt: string;
  submission: string;
  route: string;
  secret: string;
  /** Whether the mail stays unsent until somebody asks for it. */
  unsent: boolean;
}

/** What a link asks. */
export interface AskedLine {
  id: string;
  for: 'approval' | 'confirmation';
  submission: string;
  route: string;
  hold: number;
  address: string;
  /** The key of the colleague who is asked; `null` of a visitor. */
  person: string | null;
  /** What became of it: it can be answered, was answered, came too late, or nothing waits for an answer any more. */
  state: 'open' | 'answered' | 'expired' | 'gone';
  /** What was answered, by whomever. */
  answer: { approved: boolean; by: string; at: Date } | null;
}

/** A visitor who sends again within so many minutes gets no second mail: the link of the first confirms both. */
const NO_SECOND_MAIL_MINUTES = 10;
const JOB = 'end-confirmations';
const HOUR = 3_600;
const AT_ONCE = 500;

/** Those who are asked by mail before a run writes anything: each has a link of their own, kept as a hash. */
@Injectable()
export class AskedService implements OnApplicationBootstrap, OnModuleInit {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(Jobs) private readonly jobs: Jobs,
    @Inject(HoldAnswersService) private readonly answers: HoldAnswersService,
    @Inject(SubmissionQueue) private readonly queue: SubmissionQueue,
  ) {}

  onModuleInit(): void {
    this.jobs.register<{ workspaceId: string }>({ name: JOB, work: ({ workspaceId }) => this.endExpired(workspaceId) });
  }

  /** What expired while the server was down ends as well. */
  async onApplicationBootstrap(): Promise<void> {
    for (const { id } of await this.database.gate<{ id: string }>('workspaces'))
      if (await this.database.inWorkspace(id, (tx) => this.#anyOpen(tx)))
        await this.jobs.resume(JOB, { workspaceId: id }, `${JOB} ${id}`);
  }

  /** Keeps who is asked. Returns the mails that go out for it: none to somebody who was asked the same already. */
  async ask(tx: WorkspaceTx, asks: readonly NewAsk[]): Promise<Omit<NewOutboxItem, 'run'>[]> {
    if (!asks.length) return [];
    const mailed = await this.#mailedLately(tx, asks);
    const rows = asks.map((ask) => {
      const who = mailTo(ask);
      const mails = ask.for !== 'confirmation' || !mailed.has(who);
      if (mails) mailed.add(who);
      return { ...ask, id: newId(), hash: mails ? secretHash(ask.secret) : null };
    });
    const column = <Key extends keyof (typeof rows)[number]>(key: Key) => rows.map((row) => row[key]);
    const kept = await tx.statement<{ id: string }>(
      'keep_asked',
      `insert into asked (workspace_id, id, submission_id, route_id, hold, what, address, person_key, hash, asked_at, expires_at)
       select $1, id, submission_id, route_id, hold, what, address, person_key, hash, now(), now() + make_interval(days => days)
       from unnest($2::uuid[], $3::uuid[], $4::uuid[], $5::int[], $6::text[], $7::text[], $8::text[], $9::text[], $10::int[])
         a (id, submission_id, route_id, hold, what, address, person_key, hash, days)
       on conflict (workspace_id, submission_id, route_id, hold, address) do nothing returning id`,
      [
        tx.workspaceId,
        column('id'),
        column('submission'),
        column('route'),
        column('hold'),
        column('for'),
        column('to'),
        rows.map(({ person }) => person ?? null),
        column('hash'),
        column('days'),
      ],
    );
    const isNew = new Set(kept.map(({ id }) => id));
    await this.jobs.add(JOB, { workspaceId: tx.workspaceId }, `${JOB} ${tx.workspaceId}`, HOUR);
    return rows.flatMap((row, index) => (isNew.has(row.id) && row.hash !== null ? mailsOf(row, index) : []));
  }

  /** What a link asks; `null` for one that there is not. */
  async bySecret(tx: WorkspaceTx, secret: string): Promise<AskedLine | null> {
    const [row] = await tx.statement<
      Omit<AskedLine, 'state' | 'answer'> & AnsweredRow & { waits: boolean; late: boolean }
    >(
      'asked_by_secret',
      `select a.id, a.what as "for", a.submission_id as submission, a.route_id as route, a.hold, a.address, a.person_key as person,
         a.expires_at < now() as late, h.approved, h.by, h.at,
         exists (select from run r where r.workspace_id = a.workspace_id and r.submission_id = a.submission_id and r.route_id = a.route_id
           and r.outcome = 'held' and r.reason_code = a.what) as waits
       from asked a left join hold_answer h
         on h.workspace_id = a.workspace_id and h.submission_id = a.submission_id and h.route_id = a.route_id and h.hold = a.hold and h.what = a.what
       where a.workspace_id = $1 and a.hash = $2`,
      [tx.workspaceId, secretHash(secret)],
    );
    if (!row) return null;
    const { waits, late, approved, by, at, ...asked } = row;
    const answer = approved === null ? null : { approved, by: by!, at: at! };
    return { ...asked, answer, state: stateOf(answer, { waits, late }) };
  }

  /** The workspace of a link; `null` for one that there is not. */
  async workspaceOf(secret: string): Promise<string | null> {
    const [row] = await this.database.gate<{ workspace_id: string }>('asked', secretHash(secret));
    return row?.workspace_id ?? null;
  }

  /** Takes an answer. A confirmation is one of all that the same address sent to the same route. */
  async answer(
    tx: WorkspaceTx,
    asked: AskedLine,
    said: { approved: boolean; by: string; note: string },
  ): Promise<void> {
    const { submission, route, hold } = asked;
    const also = asked.for === 'confirmation' ? await this.#openOf(tx, asked) : [];
    const submissions = [...new Set([submission, ...also])];
    await this.answers.give(
      tx,
      submissions.map((one) => ({ ...said, for: asked.for, submission: one, route, hold })),
    );
    await this.queue.runThrough(tx, submissions, route);
  }

  /** Ends what was not confirmed in time: these runs end with that reason. */
  async endExpired(workspaceId: string): Promise<void> {
    const { more, waits } = await this.database.inWorkspace(workspaceId, async (tx) => {
      const late = await tx.statement<{ submission: string; route: string; hold: number }>(
        'expired_confirmations',
        `select submission_id as submission, route_id as route, hold from asked
         where workspace_id = $1 and open and what = 'confirmation' and expires_at < now() order by expires_at limit ${AT_ONCE} for update skip locked`,
        [workspaceId],
      );
      if (late.length) {
        await this.answers.give(
          tx,
          late.map((one) => ({ ...one, for: 'confirmation', approved: false, by: '', note: '' })),
        );
        for (const route of new Set(late.map((one) => one.route)))
          await this.queue.runThrough(
            tx,
            late.flatMap((one) => (one.route === route ? one.submission : [])),
            route,
          );
      }
      return { more: late.length === AT_ONCE, waits: await this.#anyOpen(tx) };
    });
    if (waits) await this.jobs.add(JOB, { workspaceId }, `${JOB} ${workspaceId}`, more ? 0 : HOUR);
  }

  async #anyOpen(tx: WorkspaceTx): Promise<boolean> {
    const rows = await tx.statement(
      'open_confirmations',
      `select 1 from asked where workspace_id = $1 and open and what = 'confirmation' limit 1`,
      [tx.workspaceId],
    );
    return rows.length > 0;
  }

  /** To whom a mail went lately by which the same can be confirmed. */
  async #mailedLately(tx: WorkspaceTx, asks: readonly NewAsk[]): Promise<Set<string>> {
    const confirming = asks.filter((ask) => ask.for === 'confirmation');
    if (!confirming.length) return new Set();
    const rows = await tx.statement<{ route: string; hold: number; to: string }>(
      'mailed_lately',
      `select route_id as route, hold, address as "to" from asked
       where workspace_id = $1 and what = 'confirmation' and open and hash is not null and address = any($2::text[])
         and asked_at > now() - make_interval(mins => ${NO_SECOND_MAIL_MINUTES}) and expires_at > now()`,
      [tx.workspaceId, confirming.map(({ to }) => to)],
    );
    return new Set(rows.map(mailTo));
  }

  async #openOf(tx: WorkspaceTx, { route, hold, address }: AskedLine): Promise<string[]> {
    const rows = await tx.statement<{ submission: string }>(
      'open_of_address',
      `select submission_id as submission from asked
       where workspace_id = $1 and what = 'confirmation' and open and route_id = $2 and hold = $3 and address = $4 order by asked_at for update`,
      [tx.workspaceId, route, hold, address],
    );
    return rows.map(({ submission }) => submission);
  }
}

/** The mail by which somebody is asked, and the one that reminds them: later ones only while nobody has answered. */
function mailsOf(ask: NewAsk, index: number): Omit<NewOutboxItem, 'run'>[] {
  const { attempt, submission, route, to, mail, inDays, reminder, unsent, hold } = ask;
  const sent = { attempt, submission, route, kind: 'mail', to, unsent };
  const unanswered = { submission, route, hold };
  const key = `${attempt}.ask.${hold}.${index}`;
  const later = (days: number, one: RenderedMail) => ({ inDays: days, body: { ...one, unanswered } });
  return [
    ...(mail ? [{ ...sent, key, ...(inDays === undefined ? { body: { ...mail } } : later(inDays, mail)) }] : []),
    ...(reminder ? [{ ...sent, key: `${key}.again`, ...later(reminder.inDays, reminder.mail) }] : []),
  ];
}

interface AnsweredRow {
  approved: boolean | null;
  by: string | null;
  at: Date | null;
}

function mailTo({ route, hold, to }: { route: string; hold: number; to: string }): string {
  return `${route} ${hold} ${to}`;
}

function stateOf(answer: AskedLine['answer'], { waits, late }: { waits: boolean; late: boolean }): AskedLine['state'] {
  // What was not confirmed in time is answered by nobody.
  if (answer) return answer.by ? 'answered' : 'expired';
  if (!waits) return 'gone';
  return late ? 'expired' : 'open';
}
