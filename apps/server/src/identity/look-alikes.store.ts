import { Injectable } from '@nestjs/common';
import { RECORD_KINDS, type FoundPair, type Pattern, type RecordKind, type Thresholds } from '@haycart/core';
import type { WorkspaceTx } from '../platform/database/database';
import type { DecidedPatterns } from './look-through';

/** A pair as it lies in its table. */
export interface PairRow extends Record<string, unknown> {
  record_kind: RecordKind;
  one_id: string;
  other_id: string;
  probability: number;
  pattern: Pattern;
  state: 'open' | 'later' | 'same' | 'different';
  found_at: Date;
}

const COLUMNS = 'record_kind, one_id, other_id, probability, pattern, state, found_at';

/** A record that is none of some others. */
export interface Apart {
  kind: RecordKind;
  record: string;
  from: readonly string[];
}

/** The pairs of records that may be the same, and what people decided of them. */
@Injectable()
export class LookAlikesStore {
  /** Keeps what was found. A pair that somebody decided stays decided; its likeness is brought up to date. */
  async keep(tx: WorkspaceTx, kind: RecordKind, pairs: readonly FoundPair[], at: Date): Promise<number> {
    if (!pairs.length) return 0;
    const rows = await tx.statement<{ fresh: boolean }>(
      'keep_pairs',
      `insert into look_alike as l (workspace_id, record_kind, one_id, other_id, probability, pattern, found_at, checked_at, intake)
       select $1::uuid, $2, f.one, f.other, f.probability, f.pattern, $7, $7,
         (select i.key from record_change c join run_attempt r on r.workspace_id = c.workspace_id and r.id = c.cause_id
            join submission s on s.workspace_id = r.workspace_id and s.id = r.submission_id join intake i on i.workspace_id = s.workspace_id and i.id = s.intake_id
          where c.workspace_id = $1 and c.record_id = f.other and c.cause_kind = 'run' order by c.at limit 1)
       from unnest($3::uuid[], $4::uuid[], $5::float8[], $6::text[]) f (one, other, probability, pattern)
       on conflict (workspace_id, one_id, other_id) do update set probability = excluded.probability, pattern = excluded.pattern, checked_at = excluded.checked_at
       returning (xmax = 0) as fresh`,
      [
        tx.workspaceId,
        kind,
        pairs.map(({ one }) => one),
        pairs.map(({ other }) => other),
        pairs.map(({ probability }) => probability),
        pairs.map(({ pattern }) => pattern),
        at,
      ],
    );
    return rows.filter(({ fresh }) => fresh).length;
  }

  /** Forgets open pairs of some records that are not like enough any more: those not looked at since. */
  async forgetStale(tx: WorkspaceTx, kind: RecordKind, since: Date, records: readonly string[] | null): Promise<void> {
    await tx.statement(
      'forget_stale_pairs',
      `delete from look_alike where workspace_id = $1 and record_kind = $2 and state = 'open' and checked_at < $3
         and ($4::uuid[] is null or one_id = any($4) or other_id = any($4))`,
      [tx.workspaceId, kind, since, records],
    );
  }

  /** What people decided, by how the pairs agree. */
  async decided(tx: WorkspaceTx, kind: RecordKind): Promise<DecidedPatterns> {
    const rows = await tx.statement<{ state: 'same' | 'different'; pattern: Pattern; times: number }>(
      'decided_patterns',
      `select state, pattern, count(*)::int as times from look_alike where workspace_id = $1 and record_kind = $2 and state in ('same', 'different') and pattern <> '' group by 1, 2`,
      [tx.workspaceId, kind],
    );
    const of = (state: string) =>
      rows.filter((row) => row.state === state).map(({ pattern, times }): [Pattern, number] => [pattern, times]);
    return { same: of('same'), different: of('different') };
  }

  /** Open pairs, the likeliest first; those put off come last. */
  async open(
    tx: WorkspaceTx,
    { kind, least = 0, most }: { kind?: RecordKind | undefined; least?: number; most: number },
  ): Promise<PairRow[]> {
    return tx.statement<PairRow>(
      'open_pairs',
      // The first of each state and kind by the index, however many there are.
      `select l.* from (values ('open'), ('later')) s (state) cross join unnest($2::text[]) k (kind) cross join lateral (
         select ${COLUMNS} from look_alike where workspace_id = $1 and state in ('open', 'later') and state = s.state and record_kind = k.kind and probability >= $3
         order by probability desc, one_id, other_id limit $4) l
       order by l.state <> 'open', l.probability desc, l.one_id, l.other_id limit $4`,
      [tx.workspaceId, kind ? [kind] : RECORD_KINDS, least, most],
    );
  }

  async openCount(tx: WorkspaceTx, most: number): Promise<number> {
    const [row] = await tx.statement<{ n: number }>(
      'open_pair_count',
      `select count(*)::int as n from (select 1 from look_alike where workspace_id = $1 and state in ('open', 'later') limit $2) p`,
      [tx.workspaceId, most],
    );
    return row!.n;
  }

  /** Pairs that nobody merged, decided ones too, by probability in hundredths. */
  async byHundredth(tx: WorkspaceTx, kind: RecordKind): Promise<{ hundredth: number; times: number }[]> {
    return tx.statement(
      'pairs_by_hundredth',
      `select floor(probability * 100)::int as hundredth, count(*)::int as times from look_alike
       where workspace_id = $1 and record_kind = $2 and state <> 'same' and pattern <> '' group by 1`,
      [tx.workspaceId, kind],
    );
  }

  /** Open pairs from `ask` on, counted by how they agree and whether they lie over `accept`. */
  async byPattern(
    tx: WorkspaceTx,
    kind: RecordKind,
    { accept, ask }: Thresholds,
  ): Promise<{ pattern: Pattern; over: boolean; times: number }[]> {
    return tx.statement(
      'open_pairs_by_pattern',
      `select pattern, probability >= $4 as over, count(*)::int as times from look_alike
       where workspace_id = $1 and record_kind = $2 and state in ('open', 'later') and probability >= $3 group by 1, 2`,
      [tx.workspaceId, kind, ask, accept],
    );
  }

  /** Open pairs over a line, those nearest to it first, that agree in one of some ways. */
  async over(
    tx: WorkspaceTx,
    kind: RecordKind,
    line: number,
    patterns: readonly Pattern[],
    most: number,
  ): Promise<PairRow[]> {
    return tx.statement<PairRow>(
      'open_pairs_over',
      `select ${COLUMNS} from look_alike
       where workspace_id = $1 and record_kind = $2 and state in ('open', 'later') and probability >= $3 and pattern = any($4)
       order by probability, one_id, other_id limit $5`,
      [tx.workspaceId, kind, line, patterns, most],
    );
  }

  /** Open pairs under a line, those nearest to it first; then those over it that agree in none of some ways. */
  async under(
    tx: WorkspaceTx,
    kind: RecordKind,
    { accept, ask }: Thresholds,
    patterns: readonly Pattern[],
    most: number,
  ): Promise<PairRow[]> {
    return tx.statement<PairRow>(
      'open_pairs_under',
      `select ${COLUMNS} from look_alike
       where workspace_id = $1 and record_kind = $2 and state in ('open', 'later') and probability >= $3
         and (probability < $4 or not pattern = any($5))
       order by probability >= $4, probability desc, one_id, other_id limit $6`,
      [tx.workspaceId, kind, ask, accept, patterns, most],
    );
  }

  async one(tx: WorkspaceTx, one: string, other: string): Promise<PairRow | undefined> {
    const [row] = await tx.statement<PairRow>(
      'pair',
      `select ${COLUMNS} from look_alike where workspace_id = $1 and one_id = $2 and other_id = $3`,
      [tx.workspaceId, one, other],
    );
    return row;
  }

  async decide(
    tx: WorkspaceTx,
    pairs: readonly { one: string; other: string }[],
    state: 'different' | 'later',
    by: string,
  ): Promise<void> {
    await tx.statement(
      'decide_pairs',
      `update look_alike l set state = $4, decided_by = $5, decided_at = now() from unnest($2::uuid[], $3::uuid[]) d (one, other)
       where l.workspace_id = $1 and l.one_id = d.one and l.other_id = d.other`,
      [tx.workspaceId, pairs.map(({ one }) => one), pairs.map(({ other }) => other), state, by],
    );
  }

  /** Keeps, for ever, that a record is none of some others. */
  async keepApart(
    tx: WorkspaceTx,
    { kind, record, from, probability = 0, by }: Apart & { probability?: number; by: string },
  ): Promise<void> {
    await tx.statement(
      'keep_apart',
      `insert into look_alike (workspace_id, record_kind, one_id, other_id, probability, pattern, state, found_at, checked_at, decided_by, decided_at)
       select $1::uuid, $2, least($3::uuid, o), greatest($3::uuid, o), $5, '', 'different', now(), now(), $6, now() from unnest($4::uuid[]) o
       on conflict (workspace_id, one_id, other_id) do update set state = 'different', decided_by = excluded.decided_by, decided_at = excluded.decided_at`,
      [tx.workspaceId, kind, record, from, probability, by],
    );
  }

  /** All records that hang together with some by open pairs, with the pairs between them. */
  async groupOf(tx: WorkspaceTx, ids: readonly string[]): Promise<PairRow[]> {
    return tx.statement<PairRow>(
      'group_of_pairs',
      `with recursive reached (id, step) as (
         select unnest($2::uuid[]), 0
         union select case when l.one_id = r.id then l.other_id else l.one_id end, r.step + 1 from reached r
           join look_alike l on l.workspace_id = $1 and (l.one_id = r.id or l.other_id = r.id) and l.state in ('open', 'later') where r.step < 6)
       select ${COLUMNS} from look_alike
       where workspace_id = $1 and state in ('open', 'later') and one_id in (select id from reached) and other_id in (select id from reached) limit 500`,
      [tx.workspaceId, ids],
    );
  }
}
