import type { FastifyReply, FastifyRequest } from 'fastify';

export const SESSION_COOKIE = 'haycart_session';
/** Tells a browser in which somebody signed in before. */
export const DEVICE_COOKIE = 'haycart_device';

/** Over TLS a cookie is bound to this host and path (RFC 6265bis, 4.1.3.2). */
function nameOf(name: string, secure: boolean): string {
  return secure ? `__Host-${name}` : name;
}

export function readCookie(
  request: Pick<FastifyRequest, 'cookies'>,
  name: string,
  secure: boolean,
): string | undefined {
  return request.cookies[nameOf(name, secure)];
}

export function setCookie(reply: FastifyReply, name: string, value: string, seconds: number, secure: boolean): void {
  void reply.setCookie(nameOf(name, secure), value, {
    path: '/',
    httpOnly: true,
    sameSite: 'strict',
    maxAge: seconds,
    secure,
  });
}

export function clearCookie(reply: FastifyReply, name: string, secure: boolean): void {
  void reply.clearCookie(nameOf(name, secure), { path: '/', secure });
}
