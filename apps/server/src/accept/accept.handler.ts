import { createHash } from 'node:crypto';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { Inject, Injectable, Logger, type OnModuleInit } from '@nestjs/common';
import {
  answeredVersion,
  checkPayload,
  isHiddenProgram,
  isJsonObject,
  jsonPointer,
  LIMITS,
  readBody,
  readVisit,
  type JsonObject,
  type JsonValue,
  type RefusedAnswer,
  type Visit,
} from '@haycart/core';
import type { ProblemAt } from '@haycart/api';
import { Webhook } from 'standardwebhooks';
import { FormAnswers, type ReadPost } from '../forms/form-answers.service';
import { FormCounts } from '../forms/form-counts.service';
import { FormPages, type Asked } from '../forms/form-pages.service';
import { sentBy } from '../forms/seen';
import { isPublicForm, type PublicForm } from '../forms/public-forms.service';
import { IntakeDirectory, type PublicIntake } from '../intakes/intake-directory.service';
import { BeforeFramework, type EarlyHandler } from '../platform/before-framework';
import { Doors } from '../platform/doors';
import { ProblemError, problemsAt } from '../platform/errors/problem-error';
import { asProblem } from '../platform/errors/problem-filter';
import { Metrics } from '../platform/metrics';
import { FloodGuard } from '../platform/flood-guard';
import { Turns } from '../platform/budget';
import { discard, type ArrivedFile } from '../submissions/inbox/arrived-file';
import { readRequest, type ReadRequest } from './read-request';
import { SubmissionInbox, type Arrival, type Kept } from '../submissions/inbox/submission-inbox.service';

/** The most submissions that one post may bring. */
const MOST_AT_ONCE = LIMITS.submissionsAtOnce.most;
const PREFIX = '/in/';

/**
 * Takes submissions at `POST /in/{intakeKey}`. It answers straight from Node's HTTP server, beside the framework, since
 * this is the one address that has to bear any load. Acknowledged is what is durable.
 */
@Injectable()
export class AcceptHandler implements EarlyHandler, OnModuleInit {
  readonly #floods = new FloodGuard();
  readonly #writingFiles = new Turns(LIMITS.filesWrittenAtOnce.most);
  readonly #log = new Logger('accept');

  constructor(
    @Inject(BeforeFramework) private readonly before: BeforeFramework,
    @Inject(IntakeDirectory) private readonly intakes: IntakeDirectory,
    @Inject(SubmissionInbox) private readonly inbox: SubmissionInbox,
    @Inject(FormPages) private readonly pages: FormPages,
    @Inject(FormAnswers) private readonly answers: FormAnswers,
    @Inject(FormCounts) private readonly counts: FormCounts,
    @Inject(Metrics) private readonly metrics: Metrics,
    @Inject(Doors) private readonly doors: Doors,
  ) {}

  onModuleInit(): void {
    this.before.add(this);
  }

  /** Whether a request is for this handler. */
  takes(request: IncomingMessage): boolean {
    return request.url !== undefined && request.url.startsWith(PREFIX);
  }

  async handle(request: IncomingMessage, response: ServerResponse): Promise<void> {
    try {
      await this.#accept(request, response);
    } catch (thrown) {
      const problem = asProblem(thrown);
      if (problem.code === 'internal') this.#log.error({ err: thrown });
      this.metrics.refused.inc({ code: problem.code });
      refuse(request, response, problem);
    }
  }

  async #accept(request: IncomingMessage, response: ServerResponse): Promise<void> {
    if (request.method === 'OPTIONS') return answerPreflight(response);
    if (request.method !== 'POST') {
      throw new ProblemError('not-found', 'Submissions are posted to this address; there is nothing else here.');
    }
    const [path, query] = splitAddress(request.url!);
    const intake = await this.intakes.byKey(path);
    if (!intake) throw new ProblemError('unknown-intake', 'There is no intake with this key. Check the address.');
    this.#guard(request, intake);
    const form = isPublicForm(intake) ? intake : null;
    const asked: Asked = { query: query ?? new URLSearchParams(), referer: request.headers.referer };
    const html = wantsHtml(request) && form !== null;
    if (intake.state !== 'live') {
      if (html) return this.pages.sendClosed(response, form, asked);
      throw new ProblemError(
        'closed',
        intake.state === 'draft'
          ? `${intake.name} is not published yet.`
          : `${intake.name} takes no submissions any more.`,
      );
    }

    const read = await readRequest(request, this.doors.addressOf(request)).catch((thrown: unknown) => {
      if (html && thrown instanceof ProblemError && thrown.code === 'too-large') return null;
      throw thrown;
    });
    if (!read) return this.pages.sendTooLarge(response, form!, asked, LIMITS.bodyWithFiles.most);
    try {
      await this.#take({ request, response, intake, form, html, asked, query }, read);
    } finally {
      await discard(read.files);
    }
  }

  async #take({ request, response, intake, form, html, asked, query }: Post, read: ReadRequest): Promise<void> {
    if (intake.secrets.length) checkSignature(intake.secrets, request, read.body);
    const { payloads: sent, list } = payloadsOf(read);
    const from = { receivedAt: new Date(), address: this.doors.addressOf(request) };
    const post = form && (await this.answers.read(form, sent, read.files, asked.query, from));
    if (post && form.forColleagues && !post.entry) {
      if (html) return await this.pages.sendForColleagues(response, form, asked);
      throw new ProblemError('entry-link', `${form.name} is for colleagues. Send _entry, the secret of an entry link.`);
    }
    if (post?.entry) asked.entry = post.entry.secret;
    const refused = post?.answers.map((one) => one.refused) ?? [];
    if (refused.some((answers) => answers.length)) {
      if (html) return await this.pages.sendRefused(response, post!.form, asked, sent[0]!, refused[0]!);
      throw refusedAnswers(refused, list);
    }
    const payloads = post?.answers.map((one) => one.payload) ?? sent;
    const files = form ? askedFiles(read.files, payloads[0]) : checkedFiles(read.files);

    const headers = { referer: request.headers.referer, userAgent: request.headers['user-agent'] };
    const arrivals = payloads.map((payload, index): Arrival => ({
      workspaceId: intake.workspaceId,
      intakeId: intake.id,
      ...(list || (form && payload)
        ? { format: 'json' as const, body: Buffer.from(JSON.stringify(payload)) }
        : { format: read.format, body: read.body }),
      visit: this.#visit(readVisit({ handedOver: payload?._visit, query, headers }), post),
      ...(post?.entry ? { origin: { enteredBy: post.entry.person } } : {}),
      files: index === 0 ? files : [],
      ...(post?.answers[index]?.suspicion ? { suspicion: post.answers[index].suspicion } : {}),
    }));
    const keep = () => this.#keep(arrivals, request, read, payloads[0] ?? undefined, intake.secrets.length > 0);
    const { ids, isNew } = await (files.length ? this.#writingFiles.with(keep) : keep());
    this.metrics.accepted.inc(ids.length);
    if (html && isNew) this.counts.count(post!.form, sentBy(sent[0], arrivals[0]!.visit));
    if (html) await this.pages.sendThanks(response, post!.form, asked, payloads[0] ?? {});
    else acknowledge(response, list ? { submissionIds: ids } : { submissionId: ids[0]! });
  }

  /** What surrounded an arrival; only a form has versions, and only those that there were. */
  #visit({ formVersion, ...visit }: Visit, post: ReadPost | null): Visit {
    if (!post) return visit;
    return { ...visit, formVersion: String(answeredVersion(formVersion, post.form.version)) };
  }

  #guard(request: IncomingMessage, intake: PublicIntake): void {
    if (intake.perMinute === null) return;
    const wait = this.#floods.wait(`${intake.id} ${this.doors.addressOf(request)}`, intake.perMinute, Date.now());
    if (wait)
      throw new ProblemError(
        'too-many',
        `More than ${intake.perMinute} submissions a minute came from this address.`,
        undefined,
        wait,
      );
  }

  async #keep(
    arrivals: Arrival[],
    request: IncomingMessage,
    read: ReadRequest,
    payload: JsonObject | undefined,
    signed: boolean,
  ): Promise<Kept> {
    const hash = () =>
      createHash('sha256')
        .update(read.body)
        .update(read.files.map((file) => file.hash).join())
        .digest('base64url');
    const given = request.headers['idempotency-key'];
    if (typeof given === 'string' && given !== '') {
      if (given.length > LIMITS.idempotencyKey.most)
        throw new ProblemError(
          'refused',
          `The Idempotency-Key has more than ${LIMITS.idempotencyKey.most} characters.`,
        );
      return this.inbox.keepOnce(arrivals, `given ${given}`, hash());
    }
    // A signed post that comes again is the same one (Standard Webhooks): it is answered as the first time.
    const webhook = request.headers['webhook-id'];
    if (signed && typeof webhook === 'string') return this.inbox.keepOnce(arrivals, `webhook ${webhook}`, 'signed');
    // A hosted form sends a mark of its page, so that a double click is one submission; changed answers are another.
    const once = payload?._once;
    if (typeof once === 'string' && once.length <= 100 && once !== '') {
      const bodyHash = hash();
      return this.inbox.keepOnce(arrivals, `once ${once.replaceAll('\0', '')} ${bodyHash}`, bodyHash);
    }
    if (arrivals.length === 1 && !read.files.length && !arrivals[0]!.suspicion)
      return { ids: [await this.inbox.keep(arrivals[0]!)], isNew: true };
    return { ids: await this.inbox.keepAll(arrivals), isNew: true };
  }
}

/** A post to a live intake. */
interface Post {
  request: IncomingMessage;
  response: ServerResponse;
  intake: PublicIntake;
  form: PublicForm | null;
  html: boolean;
  asked: Asked;
  query: URLSearchParams | undefined;
}

/** The files that a form asked for, which its answers name; others are answers to questions that were not shown. */
function askedFiles(files: readonly ArrivedFile[], payload: JsonObject | null | undefined): ArrivedFile[] {
  const named = new Set(
    Object.values(payload ?? {})
      .flat()
      .map((answer) => (isJsonObject(answer) ? answer.file : null)),
  );
  return files.filter(({ id }) => named.has(id));
}

/** The files of a post to an endpoint, which takes any kind but programs under a false name. @throws ProblemError 422 */
function checkedFiles(files: ArrivedFile[]): ArrivedFile[] {
  const errors = files
    .filter(({ begin, name }) => isHiddenProgram(begin, name))
    .map(({ part }): ProblemAt => ({
      at: jsonPointer([part]),
      code: 'wrong-file-type',
      message: 'It is a program, and its name says otherwise.',
    }));
  if (errors.length)
    throw new ProblemError('refused', 'A file is a program under another name. Nothing was kept.', errors);
  return files;
}

function splitAddress(url: string): [key: string, query: URLSearchParams | undefined] {
  const mark = url.indexOf('?');
  const path = mark === -1 ? url.slice(PREFIX.length) : url.slice(PREFIX.length, mark);
  return [path.replace(/\/$/, ''), mark === -1 ? undefined : new URLSearchParams(url.slice(mark + 1))];
}

function wantsHtml({ headers: { accept = '' } }: IncomingMessage): boolean {
  return accept.includes('text/html');
}

/**
 * The payloads of a body. JSON that cannot be read is refused; other bodies that cannot be read are kept as they came
 * (`null`), since a visitor's browser cannot send them any better.
 */
function payloadsOf({ format, body }: ReadRequest): { payloads: (JsonObject | null)[]; list: boolean } {
  const read = readBody(format, body);
  if (!read.ok) {
    if (format === 'json') throw new ProblemError('unreadable', read.problem.text);
    return { payloads: [null], list: false };
  }
  if (!Array.isArray(read.value)) return { payloads: [checked(read.value, '')], list: false };
  if (read.value.length === 0 || read.value.length > MOST_AT_ONCE) {
    throw new ProblemError(
      'refused',
      `A list brings 1 to ${MOST_AT_ONCE} submissions; this one has ${read.value.length}.`,
    );
  }
  return { payloads: read.value.map((value, index) => checked(value, jsonPointer([index]))), list: true };
}

function checked(value: JsonValue, at: string): JsonObject {
  const problem = checkPayload(value);
  if (problem) throw new ProblemError('refused', problem.text, problemsAt([problem], at));
  return isJsonObject(value) ? value : {};
}

function refusedAnswers(refused: readonly RefusedAnswer[][], list: boolean): ProblemError {
  const errors = refused.flatMap((answers, index) =>
    answers.map(({ name, code, message }) => ({ at: jsonPointer(list ? [index, name] : [name]), code, message })),
  );
  return new ProblemError('refused', 'Some answers do not fit the form. Nothing was kept.', errors);
}

/** Checks a signature by any of the secrets, of which there are two for a while after a change. @throws ProblemError 401 */
function checkSignature(secrets: readonly string[], { headers }: IncomingMessage, body: Buffer): void {
  const text = (name: string) => String(headers[name] ?? '').slice(0, LIMITS.webhookHeader.most);
  const signed = {
    'webhook-id': text('webhook-id'),
    'webhook-timestamp': text('webhook-timestamp'),
    'webhook-signature': text('webhook-signature'),
  };
  for (const secret of secrets) {
    try {
      new Webhook(secret).verify(body, signed);
      return;
    } catch {
      // Another one may fit.
    }
  }
  throw new ProblemError(
    'signature',
    'The webhook-signature is missing, too old, or does not fit the body and the secret of this intake.',
  );
}

const ANY_SITE = { 'access-control-allow-origin': '*' };

function acknowledge(response: ServerResponse, answer: { submissionId: string } | { submissionIds: string[] }): void {
  const body = JSON.stringify(answer);
  response.writeHead(202, { 'content-type': 'application/json', 'content-length': body.length, ...ANY_SITE });
  response.end(body);
}

function answerPreflight(response: ServerResponse): void {
  response.writeHead(204, {
    ...ANY_SITE,
    'access-control-allow-methods': 'POST',
    'access-control-allow-headers': 'content-type, idempotency-key',
    'access-control-max-age': '86400',
  });
  response.end();
}

function refuse(request: IncomingMessage, response: ServerResponse, problem: ProblemError): void {
  if (response.headersSent) return void response.end();
  const body = Buffer.from(JSON.stringify(problem.body()));
  // What is left of a body that was not read is not waited for.
  const close = request.complete ? {} : { connection: 'close' };
  response.writeHead(problem.status, {
    'content-type': 'application/problem+json',
    'content-length': body.length,
    ...problem.headers(),
    ...ANY_SITE,
    ...close,
  });
  response.end(body);
}
