import { Global, Module, type DynamicModule } from '@nestjs/common';
import type { Config } from './config';
import { Database } from './database/database';
import { SecretBox } from './auth/secret-box';
import { DomainNames } from './domain-names';
import { Doors } from './doors';
import { Events } from './events/events';
import { HealthController } from './health.controller';
import { Jobs } from './jobs/jobs';
import { Metrics } from './metrics';
import { Outgoing } from './outgoing/outgoing';
import { Stopping } from './stopping';
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
        Doors,
        Events,
        Jobs,
        Metrics,
        Outgoing,
        SecretBox,
        Stopping,
      ],
      exports: [CONFIG, Database, DomainNames, Doors, Events, Jobs, Metrics, Outgoing, SecretBox, Stopping],
    };
  }
}
