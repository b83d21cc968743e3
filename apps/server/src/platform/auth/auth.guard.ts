import { Inject, Injectable, type CanActivate, type ExecutionContext } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import { Database } from '../database/database';
import { ProblemError } from '../errors/problem-error';
import type { Caller, RequestWithCaller } from './caller';
import { PUBLIC } from './public';
import { secretHash } from './secret';

export const SESSION_COOKIE = 'haycart_session';

/** Lets in only who has a session cookie or a bearer token, and notes which workspace is theirs. */
@Injectable()
export class AuthGuard implements CanActivate {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(Reflector) private readonly reflector: Reflector,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    if (this.reflector.getAllAndOverride<boolean>(PUBLIC, [context.getHandler(), context.getClass()])) return true;
    const request = context.switchToHttp().getRequest<RequestWithCaller>();
    const token = /^Bearer (\S+)$/i.exec(request.headers.authorization ?? '')?.[1];
    const caller = token ? await this.#byToken(token) : await this.#bySession(request);
    if (!caller) throw new ProblemError('not-signed-in', 'Sign in, or send an API token as Authorization: Bearer.');
    request.caller = caller;
    return true;
  }

  async #byToken(token: string): Promise<Caller | null> {
    const [found] = await this.database.gate<{ workspace_id: string; id: string; name: string }>(
      'api_token',
      secretHash(token),
    );
    return found ? { workspaceId: found.workspace_id, by: { kind: 'token', id: found.id, name: found.name } } : null;
  }

  async #bySession(request: RequestWithCaller): Promise<Caller | null> {
    const secret = request.cookies[SESSION_COOKIE];
    if (!secret) return null;
    if (fromAnotherSite(request)) throw new ProblemError('not-allowed', 'This request came from another site.');
    const [found] = await this.database.gate<{ workspace_id: string; person_id: string; expires_at: Date }>(
      'session',
      secretHash(secret),
    );
    if (!found || found.expires_at < new Date()) return null;
    return { workspaceId: found.workspace_id, by: { kind: 'person', id: found.person_id } };
  }
}

/** The cookie is same-site already; this also stops pages of other ports on the same host from changing anything. */
function fromAnotherSite(request: RequestWithCaller): boolean {
  if (request.method === 'GET' || request.method === 'HEAD') return false;
  const { origin } = request.headers;
  if (!origin) return false;
  try {
    return new URL(origin).host !== request.headers.host;
  } catch {
    return true;
  }
}
