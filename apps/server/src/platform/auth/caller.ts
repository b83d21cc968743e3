import { createParamDecorator, type ExecutionContext } from '@nestjs/common';
import type { FastifyRequest } from 'fastify';

/** Who asks: a person with a session, or a script with a token; and the one workspace they may see. */
export interface Caller {
  workspaceId: string;
  by: { kind: 'person'; id: string } | { kind: 'token'; id: string; name: string; scope: 'read' | 'send' | 'all' };
}

export type RequestWithCaller = FastifyRequest & { caller?: Caller };

/** Hands the caller to a controller's method; there is one wherever `@Public()` does not stand. */
export const ByCaller = createParamDecorator((_: unknown, context: ExecutionContext): Caller => {
  return context.switchToHttp().getRequest<RequestWithCaller>().caller!;
});
