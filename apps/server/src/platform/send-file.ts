import type { FastifyReply } from 'fastify';

/** A file that somebody gave us, as it came. */
export interface KeptFile {
  name: string;
  type: string;
  bytes: Buffer;
}

/** Answers with a file as it came. A browser saves it and never shows it as a page of this site. */
export function sendFile(reply: FastifyReply, { name, type, bytes }: KeptFile): void {
  void reply
    .header('content-type', /^[\w.+-]+\/[\w.+-]+$/.test(type) ? type : 'application/octet-stream')
    .header('content-disposition', `attachment; filename*=UTF-8''${encodeURIComponent(name)}`)
    .header('content-security-policy', "default-src 'none'; sandbox")
    .header('x-content-type-options', 'nosniff')
    .send(bytes);
}
