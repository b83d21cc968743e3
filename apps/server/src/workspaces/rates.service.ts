import { Injectable } from '@nestjs/common';
import { checkRate, jsonPointer, type ExchangeRate } from '@haycart/core';
import type { ProblemAt } from '@haycart/api';
import { asc, desc, eq } from 'drizzle-orm';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError, problemsAt } from '../platform/errors/problem-error';
import { exchangeRate } from './tables';

/** Rates by which amounts of other currencies are added up. */
@Injectable()
export class RatesService {
  /** By currency, the latest first. */
  async all(tx: WorkspaceTx): Promise<ExchangeRate[]> {
    const rows = await tx.db
      .select()
      .from(exchangeRate)
      .where(eq(exchangeRate.workspaceId, tx.workspaceId))
      .orderBy(asc(exchangeRate.currency), desc(exchangeRate.from));
    return rows.map(({ currency, from, rate }) => ({ currency, from, rate }));
  }

  /** Puts a whole table of rates in the place of the one before. */
  async replace(tx: WorkspaceTx, rates: readonly ExchangeRate[], own: string): Promise<ExchangeRate[]> {
    const problems = rates.flatMap((rate, index): ProblemAt[] => {
      const twice = rates.findIndex(({ currency, from }) => currency === rate.currency && from === rate.from) < index;
      const found = problemsAt(checkRate(rate, own), jsonPointer(['rates', index]));
      return twice
        ? [
            ...found,
            { at: jsonPointer(['rates', index, 'from']), code: 'rate-twice', message: 'This day has a rate already.' },
          ]
        : found;
    });
    if (problems.length) throw new ProblemError('refused', problems[0]!.message, problems);
    await tx.db.delete(exchangeRate).where(eq(exchangeRate.workspaceId, tx.workspaceId));
    if (rates.length)
      await tx.db.insert(exchangeRate).values(rates.map((rate) => ({ workspaceId: tx.workspaceId, ...rate })));
    return this.all(tx);
  }
}
