import { JOURNEY_KINDS, type JourneyPortion } from '@haycart/core';
import type { WorkspaceTx } from '../../platform/database/database';
import { float64s, int16s, int32s } from './packed';

/** The number of records read at once. */
const RECORDS = 50_000;
/** Of a step: bases and level, source, time. */
const STEP_BYTES = 14;

/** Each column as bytes. */
const PORTION_SQL = `with changed as materialized (
    select * from journey where workspace_id = $1 and generation > $2 and nr > $3 order by nr limit ${RECORDS})
  select string_agg(int4send(nr), ''::bytea) as nr,
    string_agg(int2send((coalesce(array_position($4::text[], record_kind), 0) - 1)::smallint), ''::bytea) as kind,
    string_agg(float8send(coalesce(date_part('epoch', made_at), 'NaN')), ''::bytea) as "madeAt",
    string_agg(float8send(coalesce(date_part('epoch', won_at), 'NaN')), ''::bytea) as "wonAt",
    string_agg(float8send(coalesce(amount::float8, 'NaN')), ''::bytea) as amount,
    string_agg(coalesce(currency, ''), ' ') as currencies,
    string_agg(int4send(octet_length(steps)), ''::bytea) as sizes, string_agg(steps, ''::bytea) as steps from changed`;

interface Packed extends Record<string, unknown> {
  nr: Buffer | null;
  kind: Buffer;
  madeAt: Buffer;
  wonAt: Buffer;
  amount: Buffer;
  currencies: string;
  sizes: Buffer;
  steps: Buffer;
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
  if (!row?.nr) return null;
  return {
    nr: int32s(row.nr),
    kind: int16s(row.kind),
    madeAt: float64s(row.madeAt),
    wonAt: float64s(row.wonAt),
    amount: float64s(row.amount),
    currencies: row.currencies.split(' '),
    counts: int32s(row.sizes).map((bytes) => bytes / STEP_BYTES),
    steps: stepsOf(row.steps),
  };
}

function stepsOf(bytes: Buffer): JourneyPortion['steps'] {
  const count = bytes.length / STEP_BYTES;
  const steps = {
    basis: new Uint8Array(count),
    toBasis: new Uint8Array(count),
    level: new Uint8Array(count),
    source: new Int32Array(count),
    at: new Float64Array(count),
  };
  for (let step = 0; step < count; step += 1) {
    const place = bytes.readInt16BE(step * STEP_BYTES);
    steps.basis[step] = place & 3;
    steps.toBasis[step] = (place >> 2) & 3;
    steps.level[step] = place >> 4;
    steps.source[step] = bytes.readInt32BE(step * STEP_BYTES + 2);
    steps.at[step] = bytes.readDoubleBE(step * STEP_BYTES + 6);
  }
  return steps;
}
