import type { NestFastifyApplication } from '@nestjs/platform-fastify';
import { LIMITS } from '@haycart/core';
import { Events } from './platform/events/events';
import { Stopping } from './platform/stopping';

/**
 * Stops a server so that nobody notices: first it says that it is not ready, while it still answers; then it takes no
 * more, and finishes what it has; then its workers, and last its connections to the database.
 */
export async function stopServer(app: NestFastifyApplication, notice = LIMITS.stopNotice.most): Promise<void> {
  app.get(Stopping).begun = true;
  const server = app.getHttpServer();
  // Who keeps a connection is told to open another, elsewhere.
  server.prependListener('request', (_: unknown, response: { shouldKeepAlive: boolean }) => {
    response.shouldKeepAlive = false;
  });
  await new Promise((resolve) => setTimeout(resolve, notice * 1_000));
  app.get(Events).endStreams();
  const drained = new Promise<void>((resolve) => server.close(() => resolve()));
  const ticking = setInterval(() => server.closeIdleConnections(), 50);
  let timer: NodeJS.Timeout | undefined;
  await Promise.race([
    drained,
    new Promise<void>((resolve) => (timer = setTimeout(resolve, LIMITS.stopRequests.most * 1_000))),
  ]);
  clearInterval(ticking);
  clearTimeout(timer);
  server.closeAllConnections();
  await app.close();
}
