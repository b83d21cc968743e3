import { Injectable } from '@nestjs/common';
import { UNKNOWN_CAUSES, type UnknownCause, type UnknownSources } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';
import { Values } from '../platform/database/values';
import type { ListSetting } from '../records/lists/record-lists.service';
import { narrowedRecords, narrowedSubmissions } from './narrowing/narrowing';
import type { ReportWish } from './report-wish';

interface Row extends Record<string, unknown> {
  cause: UnknownCause;
  key: string | null;
  name: string | null;
  touches: number;
}

/** The most intakes listed for each cause. */
const TOLD = 5;

/** Why the source of some touches is unknown. */
@Injectable()
export class UnknownService {
  async unknown(tx: WorkspaceTx, { from, to, narrowing }: ReportWish, setting: ListSetting): Promise<UnknownSources> {
    const values = new Values([tx.workspaceId, from, to]);
    const narrowed = narrowedSubmissions(narrowing, 'v.id', setting, values);
    const rows = await tx.unnamed<Row>(causesSql(narrowed), values.all);
    const all = new Values([tx.workspaceId, from, to]);
    const clauses = {
      visits: narrowedSubmissions(narrowing, 'v.id', setting, all),
      deals: narrowedRecords(narrowing, 's.record_id', setting, all),
    };
    const [{ touches, byHand } = { touches: 0, byHand: 0 }] = await tx.unnamed<{ touches: number; byHand: number }>(
      inAllSql(clauses),
      all.all,
    );
    const causes = UNKNOWN_CAUSES.flatMap((cause) => {
      const own = rows.filter((row) => row.cause === cause);
      const count = own.reduce((sum, row) => sum + row.touches, 0);
      const intakes = own.flatMap(({ key, name, touches: of }) => (key && name ? [{ key, name, touches: of }] : []));
      return count ? [{ cause, touches: count, intakes: intakes.slice(0, TOLD) }] : [];
    });
    return { touches, causes, byHand };
  }
}

/** Direct touches of a period by cause and intake; the largest count first. */
function causesSql(narrowed: string): string {
  return `select case
      when w.id is null then 'of-old'
      when w.way ? 'click' then 'click-alone'
      when w.way ? 'within' then 'lost-within'
      when not w.way ? 'page' then 'no-visit'
      else 'no-referrer' end as cause, i.key, i.name, count(*)::int as touches
  from visit v join touch_source s on s.workspace_id = v.workspace_id and s.id = v.source_id
  left join touch_way w on w.workspace_id = v.workspace_id and w.id = v.way_id
  left join intake i on i.workspace_id = v.workspace_id and i.key = w.way ->> 'intake'
  where v.workspace_id = $1 and v.at >= $2 and v.at < $3 and s.channel = 'direct' and not v.corrected ${narrowed}
  group by 1, 2, 3 order by 4 desc, 3`;
}

/** All touches of a period, and the deals made in it without any touch. */
function inAllSql({ visits, deals }: { visits: string; deals: string }): string {
  return `select (select count(*)::int from visit v where v.workspace_id = $1 and v.at >= $2 and v.at < $3 ${visits}) as touches,
    (select count(*)::int from journey_step s where s.workspace_id = $1 and s.record_kind = 'deal' and s.source_id is null and s.basis = 0
       and s.made_at >= $2 and s.made_at < $3 ${deals}) as "byHand"`;
}
