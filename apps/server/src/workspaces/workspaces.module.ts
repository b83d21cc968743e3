import { Module } from '@nestjs/common';
import { PipelinesModule } from '../pipelines/pipelines.module';
import { DemoPeople } from './demo-people';
import { PeopleService } from './people.service';
import { PersonLinks } from './person-links.service';
import { RatesService } from './rates.service';
import { SessionsService } from './sessions.service';
import { SignInService } from './sign-in.service';
import { TeamsService } from './teams.service';
import { TokensService } from './tokens.service';
import { WorkspacesService } from './workspaces.service';

/** Workspaces, the people in them, and how they sign in. */
@Module({
  imports: [PipelinesModule],
  providers: [
    DemoPeople,
    PeopleService,
    PersonLinks,
    RatesService,
    SessionsService,
    SignInService,
    TeamsService,
    TokensService,
    WorkspacesService,
  ],
  exports: [
    DemoPeople,
    PeopleService,
    PersonLinks,
    RatesService,
    SessionsService,
    SignInService,
    TeamsService,
    TokensService,
    WorkspacesService,
  ],
})
export class WorkspacesModule {}
