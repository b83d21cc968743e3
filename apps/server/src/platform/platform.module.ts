import { Global, Module, type DynamicModule } from '@nestjs/common';
import { BeforeFramework } from './before-framework';
import type { Config } from './config';
import { Database } from './database/database';
import { SecretBox } from './auth/secret-box';
import { DomainNames } from './domain-names';
import { Doors } from './doors';
import { Events } from './events/events';
import { HealthController } from './health.controller';
import { AfterChanges } from './jobs/after-changes';
import { Jobs } from './jobs/jobs';
import { Metrics } from './metrics';
import { PdfWriter } from './pdf/pdf-writer.service';
import { Outgoing } from './outgoing/outgoing';
import { Stopping } from './stopping';
import { CONFIG, FORM_STYLE } from './tokens';

@Global()
@Module({})
export class PlatformModule {
  static with(config: Config, formStyle: string): DynamicModule {
    return {
      module: PlatformModule,
      controllers: [HealthController],
      providers: [
        { provide: CONFIG, useValue: config },
        { provide: FORM_STYLE, useValue: formStyle },
        AfterChanges,
        BeforeFramework,
        { provide: Database, useFactory: () => new Database(config.databaseUrl, 20) },
        DomainNames,
        Doors,
        Events,
        Jobs,
        Metrics,
        Outgoing,
        PdfWriter,
        SecretBox,
        Stopping,
      ],
      exports: [
        CONFIG,
        FORM_STYLE,
        AfterChanges,
        BeforeFramework,
        Database,
        DomainNames,
        Doors,
        Events,
        Jobs,
        Metrics,
        Outgoing,
        PdfWriter,
        SecretBox,
        Stopping,
      ],
    };
  }
}
