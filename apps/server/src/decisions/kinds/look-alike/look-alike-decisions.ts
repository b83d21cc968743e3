import { Inject, Injectable } from '@nestjs/common';
import { percent, type RecordKind } from '@haycart/core';
import type { Caller } from '../../../platform/auth/caller';
import type { WorkspaceTx } from '../../../platform/database/database';
import { ProblemError } from '../../../platform/errors/problem-error';
import { isId } from '../../../platform/paging';
import { LookAlikesService, type WaitingPair } from '../../../identity/look-alikes.service';
import {
  lineOf,
  MOST_COUNTED,
  type AskedLines,
  type DecisionDetails,
  type DecisionKind,
  type KindOfLine,
  type Verdict,
  type WaitingLine,
} from '../decision-kind';

interface PairLine extends WaitingLine {
  of: RecordKind;
  one: { id: string; name: string };
  other: { id: string; name: string };
}

const KIND: KindOfLine = {
  kind: 'look-alike',
  title: 'Possible duplicate',
  rank: 80,
  // The likeliest first.
  inOrder: true,
  about: ({ subject, detail }) => `${subject}, ${detail}`,
};

/** Pairs of records that may be the same, the likeliest first. */
@Injectable()
export class LookAlikeDecisions implements DecisionKind<PairLine> {
  constructor(@Inject(LookAlikesService) private readonly lookAlikes: LookAlikesService) {}

  async lines(tx: WorkspaceTx, { most, id: only }: AskedLines): Promise<PairLine[]> {
    const pairs = only === undefined ? await this.lookAlikes.waiting(tx, most) : await this.#waitingPair(tx, only);
    return pairs.map(({ kind, one, other, probability, foundAt }) => ({
      ...lineOf(KIND, {
        id: `look-alike.${one.id}.${other.id}`,
        subject: one.name === other.name ? one.name : `${one.name} and ${other.name}`,
        detail: `${percent(probability)} the same ${kind}`,
        count: 1,
        at: foundAt,
        like: `look-alike ${kind}`,
      }),
      of: kind,
      one,
      other,
    }));
  }

  count(tx: WorkspaceTx): Promise<number> {
    return this.lookAlikes.waitingCount(tx, MOST_COUNTED);
  }

  #waitingPair(tx: WorkspaceTx, id: string): Promise<WaitingPair[]> {
    const [kind, one = '', other = ''] = id.split('.');
    if (kind !== KIND.kind || !isId(one) || !isId(other)) return Promise.resolve([]);
    return this.lookAlikes.waitingPair(tx, one, other);
  }

  async details(tx: WorkspaceTx, { of, one, other, subject, detail }: PairLine): Promise<DecisionDetails> {
    return {
      question: `Are they the same ${of}: ${subject}?`,
      story: `${detail}.`,
      consequence: 'Same: the older record stays, everything of the other goes to it. Can be undone at any time.',
      choices: [
        { action: 'same', label: 'Same', key: 's' },
        { action: 'different', label: 'Different', key: 'd' },
        { action: 'later', label: 'Later', key: 'l' },
      ],
      things: [one, other].map(({ id, name }) => ({ kind: of, id, name })),
      examples: [],
      view: { as: 'pair', ...(await this.lookAlikes.look(tx, one.id, other.id)) },
    };
  }

  async decide(tx: WorkspaceTx, { one, other }: PairLine, verdict: Verdict, by: Caller['by']): Promise<string> {
    switch (verdict.action) {
      case 'same': {
        const { record: survivor, values, whole = false } = verdict;
        const merged = await this.lookAlikes.same(tx, one.id, other.id, { survivor, values, whole }, by);
        return merged === 1 ? 'They are one record now.' : `${merged + 1} are one record now.`;
      }
      case 'different':
        await this.lookAlikes.different(tx, one.id, other.id, by);
        return 'They are two, and it is not asked again.';
      case 'later':
        await this.lookAlikes.later(tx, one.id, other.id, by);
        return 'Put off.';
      default:
        throw new ProblemError('refused', 'These can be the same, different, or put off.');
    }
  }
}
