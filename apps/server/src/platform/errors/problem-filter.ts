import { Catch, HttpException, Logger, type ArgumentsHost, type ExceptionFilter } from '@nestjs/common';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { databaseFailure } from '../database/failure';
import { databaseNotAvailable, ProblemError } from './problem-error';

/** Turns everything thrown while answering into a problem (RFC 9457); what is nobody's mistake but ours is logged. */
@Catch()
export class ProblemFilter implements ExceptionFilter {
  readonly #log = new Logger('errors');

  catch(thrown: unknown, host: ArgumentsHost): void {
    const request = host.switchToHttp().getRequest<FastifyRequest>();
    const reply = host.switchToHttp().getResponse<FastifyReply>();
    const problem = asProblem(thrown);
    if (problem.code === 'internal')
      this.#log.error({ err: thrown, method: request.method, route: request.routeOptions.url });
    void reply
      .status(problem.status)
      .headers(problem.headers())
      .type('application/problem+json')
      .send(JSON.stringify(problem.body()));
  }
}

/** The problem that something thrown amounts to. */
export function asProblem(thrown: unknown): ProblemError {
  if (thrown instanceof ProblemError) return thrown;
  const status =
    thrown instanceof HttpException ? thrown.getStatus() : ((thrown as { statusCode?: number })?.statusCode ?? 500);
  if (status === 404) return new ProblemError('not-found', 'There is nothing at this address.');
  if (status === 413) return new ProblemError('too-large', 'The request is larger than what is taken here.');
  if (status === 415) return new ProblemError('wrong-type', 'Send application/json.');
  if (status >= 400 && status < 500)
    return new ProblemError('unreadable', 'The request cannot be read. Check that its body is valid JSON.');
  const failure = databaseFailure(thrown);
  if (failure === 'refused')
    return new ProblemError(
      'refused',
      'Something in the request cannot be looked up or stored: a character or a value that the database does not take.',
    );
  if (failure === 'unreachable' || failure === 'full') return databaseNotAvailable(failure === 'full');
  return new ProblemError(
    'internal',
    'This is our mistake, and it was noted. Try again; if it stays, tell whoever runs Hay Cart.',
  );
}
