import { Inject, Injectable } from '@nestjs/common';
import { percent } from '@haycart/core';
import type { DecisionLine } from '@haycart/api';
import type { Caller } from '../platform/auth/caller';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { LookAlikesService } from '../identity/look-alikes.service';
import { NO_DETAILS, type DecisionDetails, type DecisionSource, type Verdict } from './decision-source';

interface PairLine extends DecisionLine {
  one: string;
  other: string;
}

const MOST = 200;

/** Pairs of records that may be the same, the likeliest first. */
@Injectable()
export class LookAlikeDecisions implements DecisionSource<PairLine> {
  constructor(@Inject(LookAlikesService) private readonly lookAlikes: LookAlikesService) {}

  async lines(tx: WorkspaceTx): Promise<PairLine[]> {
    const pairs = await this.lookAlikes.waiting(tx, MOST);
    return pairs.map(({ kind, one, other, probability, foundAt }) => ({
      id: `look-alike.${one.id}.${other.id}`,
      kind: 'look-alike',
      subject: one.name === other.name ? one.name : `${one.name} and ${other.name}`,
      detail: `${percent(probability)} the same ${kind}`,
      count: 1,
      at: foundAt,
      like: `look-alike ${kind}`,
      one: one.id,
      other: other.id,
    }));
  }

  count(tx: WorkspaceTx): Promise<number> {
    return this.lookAlikes.waitingCount(tx, MOST);
  }

  async details(tx: WorkspaceTx, { one, other }: PairLine): Promise<DecisionDetails> {
    return {
      ...NO_DETAILS,
      actions: ['same', 'different', 'later'],
      pair: await this.lookAlikes.look(tx, one, other),
    };
  }

  async decide(tx: WorkspaceTx, { one, other }: PairLine, verdict: Verdict, by: Caller['by']): Promise<string> {
    switch (verdict.action) {
      case 'same': {
        const { record: survivor, values, whole = false } = verdict;
        const merged = await this.lookAlikes.same(tx, one, other, { survivor, values, whole }, by);
        return merged === 1 ? 'They are one record now.' : `${merged + 1} are one record now.`;
      }
      case 'different':
        await this.lookAlikes.different(tx, one, other, by);
        return 'They are two, and it is not asked again.';
      case 'later':
        await this.lookAlikes.later(tx, one, other, by);
        return 'Put off.';
      case 'repair':
      case 'run-again':
      case 'send-again':
      case 'resume':
      case 'means':
      case 'add-option':
      case 'new-record':
      case 'no-record':
      case 'release':
      case 'leave':
        throw new ProblemError('refused', 'These can be the same, different, or put off.');
    }
  }
}
