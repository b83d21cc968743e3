import { Inject, Injectable } from '@nestjs/common';
import {
  changesBetween,
  closedLead,
  emptyDiff,
  lookupsFor,
  planQualify,
  qualifyingRoute,
  type Destination,
  type KnownRecord,
  type KnownRecords,
  type Qualifying,
  type QualifyPlan,
} from '@haycart/core';
import type { DoneEdit, QualifyRehearsal } from '@haycart/api';
import type { Caller } from '../../platform/auth/caller';
import type { WorkspaceTx } from '../../platform/database/database';
import { ProblemError } from '../../platform/errors/problem-error';
import { newId } from '../../platform/new-id';
import { isId } from '../../platform/paging';
import { KnownRecordsStore } from '../known-records.store';
import { RecordActs } from '../edits/record-acts.service';
import { RecordsService } from '../records.service';

/** Where the deal is to stand, and its name. */
export type QualifyWish = Pick<Qualifying, 'pipeline' | 'stage'> & { dealName?: string | undefined };

/** Leads: qualified into company, contact and deal, or set aside with a reason. */
@Injectable()
export class LeadsService {
  constructor(
    @Inject(KnownRecordsStore) private readonly known: KnownRecordsStore,
    @Inject(RecordsService) private readonly records: RecordsService,
    @Inject(RecordActs) private readonly acts: RecordActs,
  ) {}

  /** What qualifying would do, without doing it. */
  async rehearse(tx: WorkspaceTx, id: string, wish: QualifyWish, destination: Destination): Promise<QualifyRehearsal> {
    const { plan } = await this.#plan(tx, id, wish, destination, 'look');
    const ids = plan.writes.flatMap(({ id: record }) => record ?? []);
    const named = await this.records.named(tx, ids);
    const names = Object.fromEntries([...named].map(([record, { name }]) => [record, name]));
    return { ...plan, names };
  }

  async qualify(
    tx: WorkspaceTx,
    id: string,
    wish: QualifyWish,
    destination: Destination,
    by: Caller['by'],
    at = new Date().toISOString(),
  ): Promise<DoneEdit & { deal: string }> {
    const { plan, diff, lead, known, newIds } = await this.#plan(tx, id, wish, destination, 'lock', at);
    if (plan.outcome !== 'write')
      throw new ProblemError('refused', plan.reason?.text ?? 'This lead cannot be qualified.', [
        { at: '', code: 'cannot-qualify', message: plan.reason?.text ?? '' },
      ]);
    const records = [lead, ...known.all()];
    const text = `Qualified ${String(lead.values.name)}`;
    return { ...(await this.acts.apply(tx, records, [], { diff, text, at }, by)), deal: newIds.sale! };
  }

  /** Sets a lead aside, or (without a reason) opens it again. */
  async setAside(
    tx: WorkspaceTx,
    id: string,
    reason: string | null,
    destination: Destination,
    by: Caller['by'],
    at = new Date().toISOString(),
  ): Promise<DoneEdit> {
    const lead = await this.#lead(tx, id, 'lock');
    if (reason !== null) refuseClosed(lead);
    const after = reason === null ? reopened(lead, at, destination) : closedLead(lead, 'lost', at, destination, reason);
    const fields = changesBetween(lead.values, after);
    const diff = emptyDiff();
    if (Object.keys(fields).length) diff.changed[id] = { kind: 'lead', fields };
    const what = reason === null ? 'Opened again' : 'Set aside';
    return this.acts.apply(tx, [lead], [], { diff, text: `${what}: ${String(lead.values.name)}`, at }, by);
  }

  async #plan(
    tx: WorkspaceTx,
    id: string,
    { dealName, ...place }: QualifyWish,
    destination: Destination,
    how: 'look' | 'lock',
    at = new Date().toISOString(),
  ): Promise<QualifyPlan & { lead: KnownRecord; known: KnownRecords; newIds: Record<string, string> }> {
    const lead = await this.#lead(tx, id, how);
    refuseClosed(lead);
    const wish = { ...place, ...(dealName ? { dealName } : {}) };
    const { route, submission } = qualifyingRoute(lead, wish, destination);
    const lookups = lookupsFor(route, submission, destination);
    const known =
      how === 'lock'
        ? await this.records.lockAndLoad(tx, lookups, destination)
        : await this.records.look(tx, lookups, destination);
    const newIds = { firm: newId(), person: newId(), sale: newId() };
    const planned = planQualify(lead, { ...wish, at, newIds }, known, destination);
    return { ...planned, lead, known, newIds };
  }

  async #lead(tx: WorkspaceTx, id: string, how: 'look' | 'lock'): Promise<KnownRecord> {
    const [lead] = isId(id) ? await this.known.byId(tx, 'lead', [id], how) : [];
    if (!lead) throw new ProblemError('not-found', 'There is no such lead.');
    return lead;
  }
}

function refuseClosed({ values }: KnownRecord): void {
  if (values.status === 'qualified') throw new ProblemError('conflict', 'This lead was qualified already.');
  if (values.status === 'set-aside')
    throw new ProblemError('conflict', 'This lead was set aside. Open it again first.');
}

function reopened({ values }: KnownRecord, at: string, destination: Destination) {
  if (values.status === 'qualified')
    throw new ProblemError('conflict', 'A qualified lead is opened again by taking the qualifying back.');
  const { reason: _, ...rest } = values;
  const pipeline = destination.pipelines.find(({ key }) => key === values.pipeline);
  const stage = pipeline?.stages.find(({ state }) => state === 'open');
  return { ...rest, status: 'open', ...(stage ? { stage: stage.key, stage_since: at } : {}) };
}
