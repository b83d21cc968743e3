import { Inject, Injectable } from '@nestjs/common';
import type { KnownRecord, Link, RecordKind } from '@haycart/core';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { isId } from '../platform/paging';
import { KnownRecordsStore } from './known-records.store';

/** Records that a person is about to change: found and locked, with what they are linked to. */
@Injectable()
export class HeldRecords {
  constructor(@Inject(KnownRecordsStore) private readonly known: KnownRecordsStore) {}

  /**
   * Records of one kind, locked.
   *
   * @throws ProblemError 404 when one of them is not there.
   */
  async hold(tx: WorkspaceTx, kind: RecordKind, ids: readonly string[]): Promise<KnownRecord[]> {
    const wanted = [...new Set(ids)];
    const found = wanted.every(isId) ? await this.known.byId(tx, kind, wanted, 'lock') : [];
    if (found.length < wanted.length)
      throw new ProblemError(
        'not-found',
        wanted.length === 1
          ? `There is no such ${kind}.`
          : 'Some of these records are not there any more. Look at the list again.',
      );
    return found;
  }

  /**
   * Records of any kind that are to be linked to, locked.
   *
   * @throws ProblemError 422 when one of them is not there.
   */
  async byAnyId(tx: WorkspaceTx, ids: readonly string[]): Promise<KnownRecord[]> {
    const found = ids.every(isId) ? await this.byAnyIdThere(tx, ids) : [];
    if (found.length < new Set(ids).size)
      throw new ProblemError('refused', 'A record to link to is not there.', [
        { at: '/links', code: 'unknown-record', message: 'Name records by their ids.' },
      ]);
    return found;
  }

  /** Those of some records of any kind that are there, locked. */
  async byAnyIdThere(tx: WorkspaceTx, ids: readonly string[]): Promise<KnownRecord[]> {
    if (!ids.length) return [];
    const found: KnownRecord[] = [];
    for (const kind of ['contact', 'company', 'lead', 'deal'] as const)
      found.push(...(await this.known.byId(tx, kind, ids, 'lock')));
    return found;
  }

  /** The links of records, and the records at their other ends. */
  async around(tx: WorkspaceTx, ids: readonly string[]): Promise<{ links: Link[]; others: KnownRecord[] }> {
    const links = await this.known.linksOf(tx, ids);
    const own = new Set(ids);
    const others = new Set(links.flatMap(({ from, to }) => [from, to]).filter((id) => !own.has(id)));
    return { links, others: await this.byAnyIdThere(tx, [...others]) };
  }
}
