import { Global, Module, type DynamicModule } from '@nestjs/common';
import type { Config } from './config';
import { Database } from './database/database';
import { DomainNames } from './domain-names';
import { Events } from './events/events';
import { HealthController } from './health.controller';
import { Jobs } from './jobs/jobs';
import { Metrics } from './metrics';
import { CONFIG } from './tokens';

@Global()
@Module({})
export class PlatformModule {
  static with(config: Config): DynamicModule {
    return {
      module: PlatformModule,
      controllers: [HealthController],
      providers: [
        { provide: CONFIG, useValue: config },
        { provide: Database, useFactory: () => new Database(config.databaseUrl, 20) },
        DomainNames,
        Events,
        Jobs,
        Metrics,
      ],
      exports: [CONFIG, Database, DomainNames, Events, Jobs, Metrics],
    };
  }
}
