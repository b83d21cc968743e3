import type { FastifyReply } from 'fastify';
import type { AnsweredPage } from '../forms/form-pages.service';

export function sendPage(reply: FastifyReply, { status, headers, page }: AnsweredPage): void {
  void reply.code(status).headers(headers).send(page);
}
