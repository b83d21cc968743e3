import { Inject, Injectable } from '@nestjs/common';
import {
  changeType,
  emptyDiff,
  feedsField,
  moveFill,
  newKey,
  sameValue,
  showFieldValue,
  type FieldKeys,
  type FieldType,
  type FieldValue,
  type RecordKind,
  type RouteDefinition,
} from '@haycart/core';
import type { DoneEdit, FieldMoveRehearsal, FieldShape, TypeChangeRehearsal } from '@haycart/api';
import type { Caller } from '../platform/auth/caller';
import type { WorkspaceTx } from '../platform/database/database';
import { oneAtATime } from '../platform/database/one-at-a-time';
import { ProblemError } from '../platform/errors/problem-error';
import { FieldsService } from '../fields/fields.service';
import { FieldValuesService, type LinkedValue } from '../records/edits/field-values.service';
import { RecordActs } from '../records/edits/record-acts.service';
import { RoutesService } from '../routes/routes.service';
import { DestinationService } from '../destination/destination.service';
import { PeopleService } from '../workspaces/people.service';

const SHOWN = 20;

/** Changes to a field that change what records hold: another type, another kind of record, no two alike. */
@Injectable()
export class FieldChangesService {
  constructor(
    @Inject(FieldsService) private readonly fields: FieldsService,
    @Inject(FieldValuesService) private readonly values: FieldValuesService,
    @Inject(RecordActs) private readonly acts: RecordActs,
    @Inject(RoutesService) private readonly routes: RoutesService,
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(PeopleService) private readonly people: PeopleService,
  ) {}

  /** What another type would do to the values held, without doing it. */
  async rehearseType(tx: WorkspaceTx, record: RecordKind, key: string, type: FieldType): Promise<TypeChangeRehearsal> {
    const { before, change } = await this.#typeChange(tx, record, key, type);
    const fit = change.becomes.filter(({ to }) => to !== null);
    const misfits = change.becomes.filter(({ to }) => to === null);
    const shown = (value: FieldValue) => showFieldValue(before, value);
    return {
      records: count(change.becomes),
      fit: count(fit),
      examples: fit.slice(0, 5).map(({ from, to }) => ({ from: shown(from), to: showFieldValue(change.field, to) })),
      misfits: misfits.slice(0, SHOWN).map(({ from, count: records }) => ({ value: shown(from), records })),
      misfitRecords: count(misfits),
    };
  }

  /** Gives a field another type. Values that do not fit are cleared only where that is said. */
  async changeType(
    tx: WorkspaceTx,
    record: RecordKind,
    key: string,
    { type, clearMisfits }: { type: FieldType; clearMisfits: boolean },
    by: Caller['by'],
  ): Promise<DoneEdit> {
    await oneAtATime(tx, 'fields');
    const { field, change } = await this.#typeChange(tx, record, key, type);
    const misfits = count(change.becomes.filter(({ to }) => to === null));
    if (misfits && !clearMisfits)
      throw new ProblemError(
        'in-use',
        `${misfits} of the values would not fit. Change them first, or say that they are to be cleared.`,
      );
    if (misfits && field.required)
      throw new ProblemError('conflict', `${field.label} is needed, so its values cannot be cleared.`);
    await this.fields.retype(tx, record, key, type, type === 'person' ? null : (change.field.options ?? null));
    const diff = emptyDiff();
    const records = await this.values.holding(tx, record, key);
    for (const one of records) {
      const before = one.values[key]!;
      const after = change.becomes.find(({ from }) => sameValue(from, before))!.to;
      if (!sameValue(before, after)) diff.changed[one.id] = { kind: record, fields: { [key]: { before, after } } };
    }
    return this.acts.apply(tx, records, [], { diff, text: `Made ${field.label} a field of another type` }, by);
  }

  /** What moving a field to another kind of record would do, without doing it. */
  async rehearseMove(tx: WorkspaceTx, from: FieldKeys, to: RecordKind): Promise<FieldMoveRehearsal> {
    const field = await this.#made(tx, from.record, from.key);
    const pairs = await this.values.linkedValues(tx, from, to);
    const chosen = chosenValues(pairs);
    const targets = { record: to, key: from.key };
    return {
      values: await this.values.count(tx, from.record, from.key),
      moved: chosen.size,
      nowhere: (await this.values.count(tx, from.record, from.key)) - new Set(pairs.map(({ source }) => source)).size,
      several: new Set(pairs.map(({ target }) => target)).size < pairs.length ? pairs.length - chosen.size : 0,
      label: field.label,
      routes: (await this.routes.definitions(tx))
        .filter(({ draft, published }) => [draft, published].some((route) => route && feedsField(route, from)))
        .map(({ id, name, draft, published }) => ({
          id,
          name,
          follows: [draft, published].every((route) => !route || moveFill(route, from, targets) !== null),
        })),
    };
  }

  /**
   * Moves a field to another kind of record, values along: each goes to the records linked with its own, the latest where
   * several meet. The old field goes out of use with its values kept; routes follow.
   */
  async move(
    tx: WorkspaceTx,
    from: FieldKeys,
    to: RecordKind,
    by: Caller['by'],
  ): Promise<DoneEdit & { field: FieldShape }> {
    await oneAtATime(tx, 'fields');
    const field = await this.#made(tx, from.record, from.key);
    if (to === from.record) throw new ProblemError('conflict', `${field.label} is a field of the ${to} already.`);
    const known = (await this.fields.withRetired(tx)).filter(({ record }) => record === to);
    const { id: _, retired: __, ...definition } = field;
    const key = newKey(
      field.label,
      known.map((one) => one.key),
      '_',
    );
    const clash = known.find((one) => !one.retired && one.label.toLowerCase() === field.label.toLowerCase());
    if (clash)
      throw new ProblemError('conflict', `A ${to} has a field “${clash.label}” already. Rename one of them first.`);
    const target = { record: to, key };
    await this.#rewriteRoutes(tx, from, target, await this.people.nameOf(tx, by));
    await this.fields.add(tx, [{ ...definition, record: to, key, required: false }]);
    await this.fields.change(tx, from.record, from.key, { retired: true });
    const chosen = chosenValues(await this.values.linkedValues(tx, from, to));
    const records = await this.values.byIds(tx, to, [...chosen.keys()]);
    const diff = emptyDiff();
    for (const { id } of records)
      diff.changed[id] = { kind: to, fields: { [key]: { before: null, after: chosen.get(id)! } } };
    const done = await this.acts.apply(
      tx,
      records,
      [],
      { diff, text: `Moved ${field.label} from the ${from.record} to the ${to}` },
      by,
    );
    const made = (await this.fields.all(tx)).find((one) => one.record === to && one.key === key)!;
    return { ...done, field: made };
  }

  /** Refuses to call a field unique while two records hold the same, and names them. */
  async keepApart(tx: WorkspaceTx, record: RecordKind, key: string, unique: boolean): Promise<void> {
    const field = await this.#made(tx, record, key);
    if ((field.unique ?? false) === unique) return;
    if (!unique) return this.values.dropKeys(tx, record, key);
    const twice = await this.values.heldTwice(tx, record, key);
    if (twice.length)
      throw new ProblemError(
        'in-use',
        `${field.label} cannot be unique yet: ${twice.map(({ value, count: records }) => `“${value}” is on ${records}`).join(', ')}.`,
      );
    await this.values.makeKeys(tx, record, key);
  }

  async #typeChange(tx: WorkspaceTx, record: RecordKind, key: string, type: FieldType) {
    const field = await this.#made(tx, record, key);
    const destination = await this.destinations.load(tx);
    const [chosen] = await this.destinations.chosen(tx, [field]);
    const people = destination.fields.find((one) => one.key === 'owner')?.options ?? [];
    const held = await this.values.distinct(tx, record, key);
    return { field, before: chosen!, change: changeType(chosen!, type, held, destination, people) };
  }

  async #made(tx: WorkspaceTx, record: RecordKind, key: string): Promise<FieldShape> {
    const field = (await this.fields.all(tx)).find((one) => one.record === record && one.key === key);
    if (!field) throw new ProblemError('not-found', `A ${record} has no field ${key}.`);
    if (field.builtIn) throw new ProblemError('conflict', `${field.label} is built in. Its type and place are fixed.`);
    return field;
  }

  async #rewriteRoutes(tx: WorkspaceTx, from: FieldKeys, to: FieldKeys, by: string): Promise<void> {
    for (const { id, name, draft, published } of await this.routes.definitions(tx)) {
      const [newDraft, newPublished] = [draft, published].map(
        (route) => route !== null && feedsField(route, from) && moveFill(route, from, to),
      ) as (RouteDefinition | null | false)[];
      if (newDraft === null || newPublished === null)
        throw new ProblemError(
          'in-use',
          `The route ${name} feeds this field but writes no ${to.record}. Change the route first.`,
        );
      if (newDraft || newPublished)
        await this.routes.rewrite(
          tx,
          id,
          { draft: newDraft || null, published: newPublished || null },
          by,
          `A field moved to the ${to.record}.`,
        );
    }
  }
}

/** For each record that values go to the one it gets: the latest written. */
function chosenValues(pairs: readonly LinkedValue[]): Map<string, FieldValue> {
  const latest = new Map<string, LinkedValue>();
  for (const pair of pairs) {
    const before = latest.get(pair.target);
    if (!before || pair.at > before.at) latest.set(pair.target, pair);
  }
  return new Map([...latest].map(([target, { value }]) => [target, value]));
}

function count(values: readonly { count: number }[]): number {
  return values.reduce((sum, one) => sum + one.count, 0);
}
