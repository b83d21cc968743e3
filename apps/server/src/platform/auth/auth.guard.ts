import { Inject, Injectable, Logger, type CanActivate, type ExecutionContext } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import { Database } from '../database/database';
import { Doors, isOfApplication } from '../doors';
import { ProblemError } from '../errors/problem-error';
import type { Caller, RequestWithCaller } from './caller';
import { readCookie, SESSION_COOKIE } from './cookies';
import { NEEDS_PERSON, PUBLIC, TAKES_BASIC, TAKES_SENDERS } from './marks';
import { secretHash } from './secret';

const MOST_TOKENS_NOTED = 5_000;

/** Lets in only who has a session cookie or a bearer token that may do this, and notes which workspace is theirs. */
@Injectable()
export class AuthGuard implements CanActivate {
  readonly #log = new Logger('security');
  /** In which hour the use of a token was logged last, by token. */
  readonly #uses = new Map<string, number>();

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(Doors) private readonly doors: Doors,
    @Inject(Reflector) private readonly reflector: Reflector,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const request = context.switchToHttp().getRequest<RequestWithCaller>();
    if (isOfApplication(request.url) && !this.doors.answersTo(request.headers.host))
      throw new ProblemError(
        'not-allowed',
        'This server is not known by that name. Whoever runs it names it in HAYCART_PUBLIC_URL.',
      );
    const changes = request.method !== 'GET' && request.method !== 'HEAD';
    const isOpen = this.#mark<boolean>(context, PUBLIC);
    const token = this.#tokenOf(request, context);
    // The cookie is same-site already; this also stops pages of other ports on the same host from changing anything.
    if (changes && !token && isOfApplication(request.url) && this.doors.isFromElsewhere(request)) {
      this.#log.log('A request from another site was refused.');
      throw new ProblemError('not-allowed', 'This request came from another site.');
    }
    if (isOpen) return true;
    const caller = token ? await this.#byToken(token) : await this.#bySession(request);
    if (!caller) throw new ProblemError('not-signed-in', 'Sign in, or send an API token as Authorization: Bearer.');
    if (caller.by.kind === 'token') this.#refuseBeyond(caller.by, context, changes);
    request.caller = caller;
    return true;
  }

  /** The token that came with a request: a bearer's, or the password of Basic where that is taken. */
  #tokenOf(request: RequestWithCaller, context: ExecutionContext): string | undefined {
    const [scheme = '', given = ''] = (request.headers.authorization ?? '').split(' ');
    if (/^bearer$/i.test(scheme)) return given;
    if (!/^basic$/i.test(scheme) || !this.#mark<boolean>(context, TAKES_BASIC)) return undefined;
    const pair = Buffer.from(given, 'base64').toString();
    return pair.slice(pair.indexOf(':') + 1);
  }

  /** @throws ProblemError 403 for what a token of its kind may not do. */
  #refuseBeyond({ id, scope }: Extract<Caller['by'], { kind: 'token' }>, context: ExecutionContext, changes: boolean) {
    const refuse = (detail: string) => {
      this.#log.log({ token: id }, 'A token was refused.');
      throw new ProblemError('not-allowed', detail);
    };
    if (this.#mark<boolean>(context, NEEDS_PERSON) && changes) refuse('Only a person who is signed in may do this.');
    const sends = this.#mark<boolean>(context, TAKES_SENDERS) ?? false;
    if (scope === 'send' && !sends) refuse('This token may only bring submissions and files in.');
    if (scope === 'read' && changes) refuse('This token may only read.');
  }

  #mark<Value>(context: ExecutionContext, name: string): Value | undefined {
    return this.reflector.getAllAndOverride<Value | undefined>(name, [context.getHandler(), context.getClass()]);
  }

  async #byToken(token: string): Promise<Caller | null> {
    const [found] = await this.database.gate<{ workspace_id: string; id: string; name: string; scope: TokenScope }>(
      'api_token',
      secretHash(token),
    );
    if (!found) this.#log.log('An unknown or ended token was refused.');
    if (found) this.#noteUse(found.id);
    return found ? { workspaceId: found.workspace_id, by: { kind: 'token', ...pick(found) } } : null;
  }

  /** Logs that a token is used, once an hour. */
  #noteUse(id: string): void {
    const hour = Math.floor(Date.now() / 3_600_000);
    if (this.#uses.get(id) === hour) return;
    if (this.#uses.size >= MOST_TOKENS_NOTED) this.#uses.clear();
    this.#uses.set(id, hour);
    this.#log.log({ token: id }, 'A token was used.');
  }

  async #bySession(request: RequestWithCaller): Promise<Caller | null> {
    const secret = readCookie(request, SESSION_COOKIE, this.doors.secure);
    if (!secret) return null;
    const [found] = await this.database.gate<{ workspace_id: string; person_id: string }>(
      'session',
      secretHash(secret),
    );
    return found ? { workspaceId: found.workspace_id, by: { kind: 'person', id: found.person_id } } : null;
  }
}

type TokenScope = Extract<Caller['by'], { kind: 'token' }>['scope'];

function pick({ id, name, scope }: { id: string; name: string; scope: TokenScope }) {
  return { id, name, scope };
}
