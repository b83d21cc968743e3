import { Module } from '@nestjs/common';
import { AccountController } from './account.controller';
import { PeopleController } from './people.controller';
import { SessionController } from './session.controller';
import { WorkspaceController } from './workspace.controller';
import { WorkspacesModule } from './workspaces.module';

/** People and signing in, over the API. */
@Module({
  imports: [WorkspacesModule],
  controllers: [AccountController, PeopleController, SessionController, WorkspaceController],
})
export class WorkspacesApiModule {}
