import { Inject, Injectable } from '@nestjs/common';
import {
  checkFieldValue,
  comparedForm,
  error,
  jsonPointer,
  type JsonValue,
  type Problem,
  KnownRecords,
  likeness,
  planMerge,
  shareInWords,
  showRecordValue,
  startingModel,
  SURVIVORSHIP_WORDS,
  fieldOf,
  uniqueFieldsOf,
  USUAL_MERGE_RULES,
  type Destination,
  type FieldValue,
  type KnownRecord,
  type Likeness,
  type Link,
  type MergedField,
  type PlannedMerge,
  type RecordKind,
  type RecordsDiff,
} from '@haycart/core';
import type { MergeRehearsal, MergeShape } from '@haycart/api';
import type { Caller } from '../platform/auth/caller';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError, problemsAt } from '../platform/errors/problem-error';
import { Events } from '../platform/events/events';
import { oneAtATime } from '../platform/database/one-at-a-time';
import { newId } from '../platform/new-id';
import { isId } from '../platform/paging';
import { HeldRecords } from '../records/held-records.service';
import { RecordsService } from '../records/records.service';
import { DestinationService } from '../destination/destination.service';
import { PeopleService } from '../workspaces/people.service';
import { originsOf } from './origins';
import { RecognitionService } from '../recognition/recognition.service';
import { RecordSides } from './record-sides.service';

/** Which records become one, and what a person wants otherwise than the rules. */
export interface MergeChoice {
  kind: RecordKind;
  ids: readonly string[];
  survivor?: string | undefined;
  values?: Readonly<Record<string, FieldValue | null>> | undefined;
}

interface Prepared {
  planned: PlannedMerge;
  records: KnownRecord[];
  links: Link[];
  like: Likeness;
  destination: Destination;
}

/** Makes one record of several: shown before, kept, and to be undone. */
@Injectable()
export class MergesService {
  constructor(
    @Inject(HeldRecords) private readonly held: HeldRecords,
    @Inject(RecordsService) private readonly records: RecordsService,
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(RecordSides) private readonly sides: RecordSides,
    @Inject(RecognitionService) private readonly recognition: RecognitionService,
    @Inject(Events) private readonly events: Events,
  ) {}

  /** What merging would do, without doing it. */
  async rehearse(tx: WorkspaceTx, choice: MergeChoice): Promise<MergeRehearsal> {
    const { planned, records, like, destination } = await this.#prepare(tx, choice);
    return {
      kind: choice.kind,
      survivor: planned.survivor,
      sides: await this.sides.of(tx, records, destination),
      fields: planned.fields.map((merged) => mergedShape(merged, choice.kind, destination)),
      thresholds: (await this.recognition.settings(tx)).thresholds,
      probability: like.probability,
      shares: like.shares.map((share) => ({
        of: share.of,
        label: share.label,
        bits: share.bits,
        words: shareInWords(share),
      })),
    };
  }

  /**
   * Merges, one record after the other into the survivor, so that each can be taken apart by itself.
   *
   * @throws ProblemError 409 when one of them is part of another by now, 422 when there are not two of them.
   */
  async merge(tx: WorkspaceTx, choice: MergeChoice, by: Caller['by']): Promise<{ survivor: string; merges: string[] }> {
    const name = await this.people.nameOf(tx, by);
    const { planned } = await this.#prepare(tx, choice);
    const merges: string[] = [];
    for (const from of planned.absorbed) {
      const one = { ...choice, ids: [planned.survivor, from], survivor: planned.survivor };
      merges.push(await this.#mergeTwo(tx, await this.#prepare(tx, one), name));
    }
    await this.events.tell(tx, 'records', 'decisions', 'pipelines');
    return { survivor: planned.survivor, merges };
  }

  /** The merges of a record, or all of them, the latest first. */
  async list(
    tx: WorkspaceTx,
    where: { record?: string | undefined; kind?: RecordKind | undefined },
    limit: number,
  ): Promise<MergeShape[]> {
    if (where.record !== undefined && !isId(where.record)) return [];
    const rows = await tx.statement<MergeRow>(
      'merges',
      `select m.* from record_merge m where m.workspace_id = $1 and ($2::uuid is null or m.survivor_id = $2 or m.absorbed_id = $2)
         and ($3::text is null or m.record_kind = $3) order by m.at desc, m.id desc limit $4`,
      [tx.workspaceId, where.record ?? null, where.kind ?? null, limit],
    );
    const names = await this.records.named(
      tx,
      rows.map(({ survivor_id: id }) => id),
    );
    return rows.map((row) => mergeShape(row, names.get(row.survivor_id) ?? null));
  }

  /** What merges did, by their ids. */
  async diffs(tx: WorkspaceTx, ids: readonly string[]): Promise<Map<string, RecordsDiff>> {
    const rows = await tx.statement<{ id: string; diff: RecordsDiff }>(
      'merge_diffs',
      'select id, diff from record_merge where workspace_id = $1 and id = any($2::uuid[])',
      [tx.workspaceId, ids],
    );
    return new Map(rows.map(({ id, diff }) => [id, diff]));
  }

  async #mergeTwo(tx: WorkspaceTx, { planned, records, links, like }: Prepared, by: string): Promise<string> {
    const at = new Date().toISOString();
    const { fields } = await this.destinations.load(tx);
    const known = new KnownRecords(await this.#withOthers(tx, records, links), links, uniqueFieldsOf(fields));
    known.learn(planned.diff, at);
    const cause = { kind: 'merge', id: newId() } as const;
    const [from] = planned.absorbed;
    const merge = { into: planned.survivor, from: from!, diff: planned.diff, probability: like.probability };
    await this.records.write(tx, [{ diff: planned.diff, at, cause, by, merges: [merge] }], known);
    await tx.statement(
      'pair_is_same',
      `update look_alike set state = 'same', decided_by = $4, decided_at = now()
       where workspace_id = $1 and one_id = least($2::uuid, $3::uuid) and other_id = greatest($2::uuid, $3::uuid)`,
      [tx.workspaceId, planned.survivor, from, by],
    );
    await tx.statement(
      'forget_pairs_of_absorbed',
      `delete from look_alike where workspace_id = $1 and (one_id = $2 or other_id = $2) and state in ('open', 'later')`,
      [tx.workspaceId, from],
    );
    return cause.id;
  }

  /** The records at the other ends of links too, since blocks go by companies. */
  async #withOthers(tx: WorkspaceTx, records: readonly KnownRecord[], links: readonly Link[]): Promise<KnownRecord[]> {
    const own = new Set(records.map(({ id }) => id));
    const others = new Set(links.flatMap(({ from, to }) => [from, to]).filter((id) => !own.has(id)));
    return [...records, ...(await this.held.byAnyIdThere(tx, [...others]))];
  }

  async #prepare(tx: WorkspaceTx, { kind, ids, survivor, values }: MergeChoice): Promise<Prepared> {
    const wanted = [...new Set(ids)];
    if (wanted.length < 2)
      throw new ProblemError('refused', 'A record cannot be merged with itself. Choose another.', [
        { at: '/ids', code: 'merge-with-itself', message: 'Name two records or more.' },
      ]);
    await oneAtATime(tx, `merge ${kind}`);
    const gone = await this.records.survivors(tx, wanted);
    if (gone.size)
      throw new ProblemError(
        'conflict',
        'Somebody merged one of these a moment ago. Look at what it is part of now, and decide again.',
      );
    const destination = await this.destinations.load(tx);
    const records = await this.held.hold(tx, kind, wanted);
    const chosen = chosenValues(kind, values, destination);
    const ordered = wanted.map((id) => records.find((record) => record.id === id)!);
    if (survivor !== undefined && !wanted.includes(survivor))
      throw new ProblemError('refused', 'The record that stays must be one of those that are merged.', [
        { at: '/survivor', code: 'unknown-record', message: 'Name one of them.' },
      ]);
    const { links, others } = await this.held.around(tx, wanted);
    const planned = planMerge({
      records: ordered,
      links,
      rules: destination.merging ?? USUAL_MERGE_RULES,
      destination,
      originOf: await originsOf(tx, wanted),
      survivor,
      chosen,
      left: kind === 'contact' ? await leftLists(tx, wanted) : [],
    });
    const form = (record: KnownRecord) =>
      comparedForm(kind, record.values, {
        companies: others.filter(
          (other) => other.kind === 'company' && links.some(({ from, to }) => from === record.id && to === other.id),
        ),
        contacts: links.filter(({ from }) => from === record.id).map(({ to }) => to),
        createdAt: record.createdAt,
      });
    const like = likeness(destination.likeness?.[kind] ?? startingModel(kind), form(ordered[0]!), form(ordered[1]!));
    return { planned, records: ordered, links, like, destination };
  }
}

/** A merge as it lies in its table. */
export interface MergeRow extends Record<string, unknown> {
  id: string;
  record_kind: RecordKind;
  survivor_id: string;
  absorbed_id: string;
  absorbed_number: string;
  absorbed_name: string;
  cause_id: string;
  by: string;
  at: Date;
  probability: number | null;
  undone_at: Date | null;
  undone_by: string | null;
}

export function mergeShape(row: MergeRow, survivor: MergeShape['survivor']): MergeShape {
  return {
    id: row.id,
    kind: row.record_kind,
    survivor,
    absorbed: { id: row.absorbed_id, number: Number(row.absorbed_number), name: row.absorbed_name },
    by: row.by,
    at: row.at.toISOString(),
    probability: row.probability,
    undone: row.undone_at ? { by: row.undone_by ?? '', at: row.undone_at.toISOString() } : null,
  };
}

function mergedShape(
  merged: MergedField,
  kind: RecordKind,
  destination: Destination,
): MergeRehearsal['fields'][number] {
  const { rule } = merged;
  return {
    field: merged.field,
    label: merged.label,
    value: merged.value,
    text: showRecordValue(destination, kind, merged.field, merged.value),
    why: rule === 'chosen' ? 'chosen' : rule === 'survivor' ? 'as the record that stays' : SURVIVORSHIP_WORDS[rule],
    candidates: merged.candidates.map(({ value, records, writtenAt, origin }) => ({
      value,
      text: showRecordValue(destination, kind, merged.field, value),
      records: [...records],
      writtenAt,
      origin,
    })),
  };
}

/** Values that a person chose, checked as an edit is. @throws ProblemError 422 */
function chosenValues(
  kind: RecordKind,
  values: MergeChoice['values'],
  destination: Destination,
): Record<string, FieldValue | null> | undefined {
  if (!values) return undefined;
  const problems: Problem[] = [];
  const chosen = Object.entries(values).map(([key, given]): [string, FieldValue | null] => {
    const at = jsonPointer(['values', key]);
    const field = fieldOf(destination, kind, key);
    if (!field) {
      problems.push(error('unknown-field', `A ${kind} has no field “${key}”.`, at));
      return [key, null];
    }
    if (field.kept && !field.byHand) return [key, given];
    const { value, problem } = checkFieldValue(field, given as JsonValue, destination);
    if (problem) problems.push({ ...problem, at });
    return [key, value];
  });
  if (problems.length) throw new ProblemError('refused', problems[0]!.text, problemsAt(problems));
  return Object.fromEntries(chosen);
}

/** Lists that one of the contacts was on and left. */
async function leftLists(tx: WorkspaceTx, ids: readonly string[]): Promise<string[]> {
  const rows = await tx.statement<{ list_key: string }>(
    'left_lists',
    `select distinct m.list_key from list_membership m where m.workspace_id = $1 and m.contact_id = any($2::uuid[]) and m.left_at is not null
       and not exists (select 1 from list_membership n where n.workspace_id = $1 and n.contact_id = m.contact_id and n.list_key = m.list_key and n.left_at is null)`,
    [tx.workspaceId, ids],
  );
  return rows.map(({ list_key: key }) => key);
}
