import { JOURNEY_KINDS, type JourneyPortion } from '@haycart/core';
import type { WorkspaceTx } from '../../platform/database/database';
import { float64s, int16s, int32s } from './packed';

/** The number of records read at once. */
const RECORDS = 20_000;

/** Each column as bytes. The first step of its first journey states the facts of a record. */
const PORTION_SQL = `with changed as materialized (
    select nr, record_id from journey where workspace_id = $1 and generation > $2 and nr > $3 order by nr limit ${RECORDS}),
  step as materialized (
    select c.nr, s.basis, s.to_basis, s.back, s.level, s.source_id, date_part('epoch', s.at) as at, s.record_kind,
      date_part('epoch', s.made_at) as made_at, date_part('epoch', s.won_at) as won_at, s.amount, s.currency
    from changed c join journey_step s on s.workspace_id = $1 and s.record_id = c.record_id order by c.nr, s.basis, s.back),
  fact as (select * from step where basis = 0 and back = 1),
  facts as (select string_agg(int4send(nr), ''::bytea) as nr,
      string_agg(int2send((array_position($4::text[], record_kind) - 1)::smallint), ''::bytea) as kind,
      string_agg(float8send(made_at), ''::bytea) as "madeAt", string_agg(float8send(coalesce(won_at, 'NaN')), ''::bytea) as "wonAt",
      string_agg(float8send(coalesce(amount::float8, 'NaN')), ''::bytea) as amount, array_agg(coalesce(currency, '')) as currencies from fact),
  steps as (select string_agg(int4send(nr), ''::bytea) as "stepNr", string_agg(int2send(basis), ''::bytea) as basis,
      string_agg(int2send(to_basis), ''::bytea) as "toBasis", string_agg(int2send(level), ''::bytea) as level,
      string_agg(int4send(coalesce(source_id, 0)), ''::bytea) as source, string_agg(float8send(coalesce(at, 'NaN')), ''::bytea) as at from step)
  select (select string_agg(int4send(nr), ''::bytea) from changed) as records, facts.*, steps.* from facts, steps`;

interface Packed extends Record<string, unknown> {
  records: Buffer | null;
  nr: Buffer | null;
  kind: Buffer | null;
  madeAt: Buffer | null;
  wonAt: Buffer | null;
  amount: Buffer | null;
  currencies: string[] | null;
  stepNr: Buffer | null;
  basis: Buffer | null;
  toBasis: Buffer | null;
  level: Buffer | null;
  source: Buffer | null;
  at: Buffer | null;
}

/**
 * Reads journeys that changed, by the number of their record.
 *
 * @param since The generation from which they changed, and the number of a record, both left out.
 * @returns Null when there are no more.
 */
export async function readPortion(
  tx: WorkspaceTx,
  since: { generation: number; nr: number },
): Promise<JourneyPortion | null> {
  const [row] = await tx.statement<Packed>('changed_journeys', PORTION_SQL, [
    tx.workspaceId,
    since.generation,
    since.nr,
    JOURNEY_KINDS,
  ]);
  if (!row?.records) return null;
  return {
    records: int32s(row.records),
    facts: {
      nr: int32s(row.nr),
      kind: int16s(row.kind),
      madeAt: float64s(row.madeAt),
      wonAt: float64s(row.wonAt),
      amount: float64s(row.amount),
    },
    currencies: row.currencies ?? [],
    steps: {
      nr: int32s(row.stepNr),
      basis: int16s(row.basis),
      toBasis: int16s(row.toBasis),
      level: int16s(row.level),
      source: int32s(row.source),
      at: float64s(row.at),
    },
  };
}
