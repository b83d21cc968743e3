import { Inject, Injectable } from '@nestjs/common';
import type { SignInOptions } from '@haycart/api';
import { Database } from '../platform/database/database';
import { WorkspacesService } from './workspaces.service';

/** Whom the demo offers to sign in as, with one click. */
@Injectable()
export class DemoPeople {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(WorkspacesService) private readonly workspaces: WorkspacesService,
  ) {}

  /** The first two people of each workspace, with their team. */
  async all(): Promise<SignInOptions['demoPeople']> {
    const all = [];
    for (const { id } of await this.workspaces.all()) {
      const people = await this.database.inWorkspace(id, (tx) =>
        tx.statement<SignInOptions['demoPeople'][number]>(
          'demo_people',
          `select w.name as workspace, p.name, p.email, coalesce(t.name, '') as about from person p
           join workspace w on w.id = p.workspace_id
           left join team_member m on m.workspace_id = p.workspace_id and m.person_id = p.id
           left join team t on t.workspace_id = m.workspace_id and t.key = m.team_key
           where p.workspace_id = $1 order by p.id limit 2`,
          [id],
        ),
      );
      all.push(...people);
    }
    return all;
  }
}
