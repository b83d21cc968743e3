import { Inject, Injectable } from '@nestjs/common';
import type { BandFigures, SearchHit } from '@haycart/api';
import { DecisionsService } from '../decisions/decisions.service';
import { TasksService } from '../records/activities/tasks.service';
import { searched } from '../records/lists/searched';
import type { WorkspaceTx } from '../platform/database/database';
import { SubmissionsService } from '../submissions/submissions.service';

const SUBMISSIONS_FOUND = 5;

/** Figures that answer “is everything all right?”, and finding anything by its name. */
@Injectable()
export class ReportsService {
  constructor(
    @Inject(DecisionsService) private readonly decisions: DecisionsService,
    @Inject(SubmissionsService) private readonly submissions: SubmissionsService,
    @Inject(TasksService) private readonly tasks: TasksService,
  ) {}

  /** @param person The id of whoever asks; null for a script. */
  async band(tx: WorkspaceTx, person: string | null): Promise<BandFigures> {
    const [row] = await tx.statement<Omit<BandFigures, 'toDecide' | 'tasksDue'> & Record<string, number>>(
      'band',
      `select
         (select count(*)::int from intake where workspace_id = $1 and state = 'live') as "intakesLive",
         (select count(*)::int from submission where workspace_id = $1 and received_at >= date_trunc('day', now())) as "submissionsToday",
         (select count(*)::int from submission where workspace_id = $1 and state = 'waiting') as "waiting",
         (select count(*)::int from route where workspace_id = $1 and state = 'live') as "routesLive",
         (select count(*)::int from route where workspace_id = $1 and version is null) as "routesDraft",
         (select count(*)::int from contact where workspace_id = $1 and created_at >= date_trunc('day', now()))
           + (select count(*)::int from company where workspace_id = $1 and created_at >= date_trunc('day', now())) as "recordsToday",
         (select count(*)::int from deal where workspace_id = $1 and stage_since >= date_trunc('day', now())) as "dealsMovedToday",
         (select count(distinct (s.channel, s.source))::int from visit v join touch_source s on s.workspace_id = v.workspace_id and s.id = v.source_id
           where v.workspace_id = $1 and v.at >= date_trunc('day', now())) as "sourcesToday"`,
      [tx.workspaceId],
    );
    const tasksDue = person === null ? 0 : await this.tasks.dueOf(tx, person);
    return { ...row!, toDecide: await this.decisions.count(tx), tasksDue };
  }

  /** Records, intakes and routes whose name, e-mail or number holds a text, and the latest submissions with its words. */
  async search(tx: WorkspaceTx, text: string): Promise<SearchHit[]> {
    const wanted = text.trim().toLowerCase();
    if (wanted === '') return [];
    // People say “C-1094”.
    const [, mark, digits] = /^([cfld])-0*(\d{1,15})$/.exec(wanted) ?? [];
    const numbers = ['c', 'f', 'l', 'd'].map((one) => (one === mark ? Number(digits) : null));
    const named = await tx.statement<SearchHit>(
      'search',
      `select kind, id, name, detail from (
         (select 'contact' as kind, id, coalesce(full_name, email, phone, 'without a name') as name, 'C-' || number || coalesce(' ' || email, '') as detail, 1 as place from contact r
          where workspace_id = $1 and (${searched('contact')} like $2 or number = $3) order by updated_at desc limit 6)
         union all (select 'company', id, name, coalesce(domain, ''), 2 from company r where workspace_id = $1 and (${searched('company')} like $2 or number = $4) order by updated_at desc limit 5)
         union all (select 'lead', id, name, 'L-' || number, 3 from lead r where workspace_id = $1 and (${searched('lead')} like $2 or number = $5) order by updated_at desc limit 4)
         union all (select 'deal', id, name, 'D-' || number, 4 from deal r where workspace_id = $1 and (${searched('deal')} like $2 or number = $6) order by updated_at desc limit 5)
         union all (select m.record_kind, m.survivor_id, m.absorbed_name, 'part of ' || coalesce(c.full_name, c.email, f.name, l.name, d.name, 'another record') || ' now', 4 from record_merge m
            left join contact c on c.workspace_id = m.workspace_id and c.id = m.survivor_id left join company f on f.workspace_id = m.workspace_id and f.id = m.survivor_id
            left join lead l on l.workspace_id = m.workspace_id and l.id = m.survivor_id left join deal d on d.workspace_id = m.workspace_id and d.id = m.survivor_id
          where m.workspace_id = $1 and m.undone_at is null and m.absorbed_number = case m.record_kind when 'contact' then $3 when 'company' then $4 when 'lead' then $5 else $6 end limit 5)
         union all (select 'intake', id, name, kind, 5 from intake where workspace_id = $1 and lower(name || ' ' || key) like $2 limit 4)
         union all (select 'route', id, name, state, 6 from route where workspace_id = $1 and lower(name) like $2 limit 4)) hits order by place`,
      [tx.workspaceId, `%${wanted.replace(/[\\%_]/g, '\\$&')}%`, ...numbers],
    );
    const sent = await this.submissions.list(tx, { search: wanted }, SUBMISSIONS_FOUND, null);
    return [
      ...named,
      ...sent.items.map(({ id, who, email, intake, receivedAt }) => ({
        kind: 'submission' as const,
        id,
        name: [who || email || 'unnamed', intake.name].join(', '),
        detail: receivedAt,
      })),
    ];
  }
}
