import {
  blocksOf,
  commonValues,
  comparedForm,
  countPatterns,
  estimateModel,
  BlockIndex,
  spreadPairs,
  startingModel,
  type LikenessModel,
} from '@haycart/core';
import { generatePeople, type GeneratedRecord } from '@haycart/core/testing/people';
import { v7 } from 'uuid';
import type pg from 'pg';

/** Generated records are made in worlds of this many people, each with a seed of its own. */
const WORLD = 20_000;
const AT_ONCE = 20_000;

/** Generated people, as many records as wanted; `person` tells who is the same. */
export function* manyPeople(wanted: number, seed: number): Generator<GeneratedRecord & { who: string }> {
  let made = 0;
  for (let world = 0; made < wanted; world++) {
    const { records } = generatePeople(seed + world, Math.min(WORLD, wanted));
    for (const record of records) {
      if (made++ >= wanted) return;
      // Mailboxes belong to one record each, and worlds do not share them.
      const values = { ...record.values };
      if (typeof values.email === 'string') values.email = values.email.replace('@', `.${world}@`);
      yield { ...record, values, who: `${world} ${record.person}` };
    }
  }
}

/** Puts people into the tables as the server would have, but in bulk: contacts, keys and blocks. */
export async function copyPeople(
  client: pg.Client,
  workspaceId: string,
  people: Iterable<GeneratedRecord & { who: string }>,
): Promise<Map<string, string>> {
  const who = new Map<string, string>();
  let batch: Record<string, unknown>[] = [];
  let number = 0;
  const flush = async () => {
    if (!batch.length) return;
    const rows = JSON.stringify(batch);
    await client.query(
      `insert into contact (workspace_id, id, number, first_name, last_name, full_name, email, emails, phone, phones, country, job_title, created_at, updated_at)
       select $1, r.id, r.number, r.first_name, r.last_name, r.full_name, r.email, case when r.email is null then null else array[r.email] end,
         r.phone, case when r.phone is null then null else array[r.phone] end, r.country, r.job_title, now(), now()
       from jsonb_to_recordset($2::jsonb) r (id uuid, number bigint, first_name text, last_name text, full_name text, email text, phone text, country text, job_title text)`,
      [workspaceId, rows],
    );
    await client.query(
      `insert into record_block (workspace_id, record_kind, block, record_id)
       select $1, 'contact', b, r.id from jsonb_to_recordset($2::jsonb) r (id uuid, blocks text[]), unnest(r.blocks) b on conflict do nothing`,
      [workspaceId, rows],
    );
    batch = [];
  };
  for (const record of people) {
    const id = v7();
    who.set(id, record.who);
    batch.push({
      ...record.values,
      id,
      number: (number += 1),
      blocks: blocksOf(comparedForm('contact', record.values)),
    });
    if (batch.length >= AT_ONCE) await flush();
  }
  await flush();
  return who;
}

/** A model learned from a sample of people. */
export function modelOf(records: readonly GeneratedRecord[]): LikenessModel {
  const forms = records.map(({ values }) => comparedForm('contact', values));
  return estimateModel(
    { ...startingModel('contact', forms.length), common: commonValues(forms) },
    {
      records: forms.length,
      candidates: countPatterns(new BlockIndex(forms).pairs(), forms),
      random: countPatterns(spreadPairs(forms.length, 40_000), forms),
      same: new Map(),
      different: new Map(),
    },
  );
}
