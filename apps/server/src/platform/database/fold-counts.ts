import type { WorkspaceTx } from './database';

/**
 * Makes one row of all rows of a table of counts that are alike in `keys`, for the days to which some were added. Who reads
 * meanwhile sees the rows before or the rows after, and what is added meanwhile is folded next time.
 */
export async function foldCounts(
  tx: WorkspaceTx,
  table: string,
  keys: readonly string[],
  counted: string,
): Promise<void> {
  const own = ['workspace_id', 'day', ...keys].join(', ');
  await tx.statement(
    `fold_${table}`,
    `with days as (select distinct day from ${table} where workspace_id = $1 and not folded),
       gone as (delete from ${table} c using days d where c.workspace_id = $1 and c.day = d.day returning c.*)
     insert into ${table} (${own}, ${counted}, folded)
     select ${own}, sum(${counted}), true from gone group by ${own} having sum(${counted}) <> 0`,
    [tx.workspaceId],
  );
}
