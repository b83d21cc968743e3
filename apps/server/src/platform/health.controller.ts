import { Controller, Get, Header, Inject } from '@nestjs/common';
import { ApiExcludeController } from '@nestjs/swagger';
import { Public } from './auth/public';
import { Database } from './database/database';
import { databaseNotAvailable } from './errors/problem-error';
import { Metrics } from './metrics';

/** Alive, able to accept, and the figures for Prometheus. */
@ApiExcludeController()
@Public()
@Controller()
export class HealthController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(Metrics) private readonly metrics: Metrics,
  ) {}

  @Get('healthz')
  alive(): { alive: true } {
    return { alive: true };
  }

  @Get('readyz')
  async ready(): Promise<{ ready: true }> {
    try {
      await this.database.gate('workspaces');
    } catch {
      throw databaseNotAvailable(false);
    }
    return { ready: true };
  }

  @Get('metrics')
  @Header('content-type', 'text/plain; version=0.0.4')
  figures(): Promise<string> {
    return this.metrics.registry.metrics();
  }
}
