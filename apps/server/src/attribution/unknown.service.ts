import { Injectable } from '@nestjs/common';
import { UNKNOWN_CAUSES, type UnknownCause, type UnknownSources } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';

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
  async unknown(tx: WorkspaceTx, from: Date, to: Date): Promise<UnknownSources> {
    const rows = await tx.statement<Row>('unknown_sources', CAUSES_SQL, [tx.workspaceId, from, to]);
    const [{ touches, byHand } = { touches: 0, byHand: 0 }] = await tx.statement<{ touches: number; byHand: number }>(
      'unknown_in_all',
      IN_ALL_SQL,
      [tx.workspaceId, from, to],
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
const CAUSES_SQL = `select case
      when w.id is null then 'of-old'
      when w.way ? 'click' then 'click-alone'
      when w.way ? 'within' then 'lost-within'
      when not w.way ? 'page' then 'no-visit'
      else 'no-referrer' end as cause, i.key, i.name, count(*)::int as touches
  from visit v join touch_source s on s.workspace_id = v.workspace_id and s.id = v.source_id
  left join touch_way w on w.workspace_id = v.workspace_id and w.id = v.way_id
  left join intake i on i.workspace_id = v.workspace_id and i.key = w.way ->> 'intake'
  where v.workspace_id = $1 and v.at >= $2 and v.at < $3 and s.channel = 'direct' and not v.corrected
  group by 1, 2, 3 order by 4 desc, 3`;

/** All touches of a period, and the deals made in it without any touch. */
const IN_ALL_SQL = `select (select count(*)::int from visit where workspace_id = $1 and at >= $2 and at < $3) as touches,
  (select count(*)::int from journey_step where workspace_id = $1 and record_kind = 'deal' and source_id is null and basis = 0
     and made_at >= $2 and made_at < $3) as "byHand"`;
