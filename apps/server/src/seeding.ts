import 'reflect-metadata';
import { NestFactory } from '@nestjs/core';
import { AppModule } from './app.module';
import { FieldsService } from './fields/fields.service';
import { IntakesService } from './intakes/intakes.service';
import { readConfig } from './platform/config';
import { Database } from './platform/database/database';
import { migrateDatabase } from './platform/database/migrate';
import { PinoLogger } from './platform/logging';
import { DealMovesService } from './records/deal-moves.service';
import { RoutesService } from './routes/routes.service';
import { RouterService } from './runs/router.service';
import { SubmissionInbox } from './submissions/accept/submission-inbox.service';
import { PeopleService } from './workspaces/people.service';
import { WorkspacesService } from './workspaces/workspaces.service';

/** The server's services without its addresses and workers: for filling a database by the same code that runs live. */
export async function openServices(env: NodeJS.ProcessEnv, migrations: string) {
  const config = { ...readConfig(env), role: 'web' as const, logLevel: 'error' as const };
  await migrateDatabase(config.databaseUrl, migrations);
  const context = await NestFactory.createApplicationContext(AppModule.with(config), {
    logger: new PinoLogger(config),
    abortOnError: false,
  });
  return {
    database: context.get(Database),
    fields: context.get(FieldsService),
    inbox: context.get(SubmissionInbox),
    intakes: context.get(IntakesService),
    people: context.get(PeopleService),
    deals: context.get(DealMovesService),
    router: context.get(RouterService),
    routes: context.get(RoutesService),
    workspaces: context.get(WorkspacesService),
    close: () => context.close(),
  };
}

export type Services = Awaited<ReturnType<typeof openServices>>;
