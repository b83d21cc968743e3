import { Controller, Get, Header, Inject, Req } from '@nestjs/common';
import type { FastifyRequest } from 'fastify';
import { LIMITS } from '@haycart/core';
import { ApiExcludeController } from '@nestjs/swagger';
import { Public } from './auth/marks';
import { isLoopback } from './client-address';
import type { Config } from './config';
import { Database } from './database/database';
import { databaseNotAvailable, ProblemError } from './errors/problem-error';
import { Metrics } from './metrics';
import { Stopping } from './stopping';
import { CONFIG } from './tokens';
import { within } from './within';
import { Open } from './commands/command';

/** Alive, able to accept, and the figures for Prometheus. */
@ApiExcludeController()
@Public()
@Controller()
export class HealthController {
  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(Database) private readonly database: Database,
    @Inject(Metrics) private readonly metrics: Metrics,
    @Inject(Stopping) private readonly stopping: Stopping,
  ) {}

  @Get('healthz')
  @Open('Says that the server runs')
  alive(): { alive: true } {
    return { alive: true };
  }

  @Get('readyz')
  @Open('Says whether the server can work')
  async ready(): Promise<{ ready: true }> {
    if (this.stopping.begun) throw new ProblemError('not-available', 'The server is about to stop.', undefined, 5);
    try {
      await within(LIMITS.readyAnswer.most, this.database.gate('workspaces'));
    } catch {
      throw databaseNotAvailable(false);
    }
    return { ready: true };
  }

  @Get('metrics')
  @Open('Gives the server’s figures')
  @Header('content-type', 'text/plain; version=0.0.4')
  figures(@Req() request: FastifyRequest): Promise<string> {
    if (!this.config.open.includes('metrics') && !isLoopback(request.ip))
      throw new ProblemError('not-allowed', 'Figures are for this machine alone, unless HAYCART_OPEN names metrics.');
    return this.metrics.registry.metrics();
  }
}
