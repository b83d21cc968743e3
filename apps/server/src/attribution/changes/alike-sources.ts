import {
  isKeptApart,
  joinedName,
  MOST_COMPARED,
  similarNames,
  type ChannelRules,
  type JoinedNames,
} from '@haycart/core';
import type { WorkspaceTx } from '../../platform/database/database';

/** Sources of the last year that look like spellings of one name, and that the rules neither join nor keep apart. */
export async function alikeSources(tx: WorkspaceTx, rules: ChannelRules): Promise<JoinedNames[]> {
  const sources = await tx.statement<{ name: string; touches: number }>(
    'source_names',
    `select s.source as name, count(*)::int as touches from visit v
     join touch_source s on s.workspace_id = v.workspace_id and s.id = v.source_id
     where v.workspace_id = $1 and v.at >= now() - interval '1 year' group by 1 order by 2 desc, 1 limit ${MOST_COMPARED}`,
    [tx.workspaceId],
  );
  return similarNames(sources).flatMap(({ name, spellings }) => {
    const others = spellings.filter(
      (spelling) => joinedName(spelling, rules) !== joinedName(name, rules) && !isKeptApart(spelling, name, rules),
    );
    return others.length ? [{ name: joinedName(name, rules), spellings: others }] : [];
  });
}
