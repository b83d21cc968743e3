import { Module, type DynamicModule, type Type } from '@nestjs/common';
import { APP_FILTER, APP_GUARD, APP_PIPE } from '@nestjs/core';
import { AuthGuard } from './platform/auth/auth.guard';
import type { Config, Role } from './platform/config';
import { ProblemFilter } from './platform/errors/problem-filter';
import { validation } from './platform/errors/validate';
import { PlatformModule } from './platform/platform.module';
import { SealedSecrets } from './sealed-secrets';

/** The areas of each role; the code of the others is not even read. */
const AREAS: Record<Role, () => Promise<{ MODULES: Type[] }>> = {
  all: () => import('./roles/all'),
  accept: () => import('./roles/accept'),
  route: () => import('./roles/route'),
  web: () => import('./roles/web'),
};

/** A server with the areas that its role needs. */
@Module({})
export class AppModule {
  static async with(config: Config, formStyle: string): Promise<DynamicModule> {
    const { MODULES } = await AREAS[config.role]();
    return {
      module: AppModule,
      imports: [PlatformModule.with(config, formStyle), ...MODULES],
      providers: [
        { provide: APP_GUARD, useClass: AuthGuard },
        { provide: APP_FILTER, useClass: ProblemFilter },
        { provide: APP_PIPE, useValue: validation },
        SealedSecrets,
      ],
    };
  }
}
