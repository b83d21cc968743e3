import { Inject, Injectable } from '@nestjs/common';
import { verdictOn, type RecordKind, type Thresholds } from '@haycart/core';
import type { ThresholdExamples } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';
import { LookAlikesService } from './look-alikes.service';
import { LookAlikesStore } from './look-alikes.store';
import { ScanService } from './scan.service';

const EXAMPLES = 5;

/**
 * Where thresholds stand on a workspace’s own pairs, and what moving them would do. Pairs that were kept are counted as
 * they are now; those too unlike to be kept as the last scan counted them.
 */
@Injectable()
export class ThresholdsService {
  constructor(
    @Inject(LookAlikesService) private readonly lookAlikes: LookAlikesService,
    @Inject(LookAlikesStore) private readonly pairs: LookAlikesStore,
    @Inject(ScanService) private readonly scans: ScanService,
  ) {}

  /** How many pairs have which probability, in hundredths; empty when there is none and nothing was looked through. */
  async scores(tx: WorkspaceTx, kind: RecordKind): Promise<number[]> {
    const left = await this.scans.leftBelow(tx, kind);
    const kept = await this.pairs.byHundredth(tx, kind);
    if (!left.length && !kept.length) return [];
    const scores = Array.from({ length: 101 }, (_, hundredth) => left[hundredth] ?? 0);
    for (const { hundredth, times } of kept) scores[hundredth]! += times;
    return scores;
  }

  /** How many that wait would be accepted and asked about, and those nearest to the line between. */
  async examples(tx: WorkspaceTx, kind: RecordKind, thresholds: Thresholds): Promise<ThresholdExamples> {
    const { accept, ask } = thresholds;
    const ways = await this.pairs.byPattern(tx, kind, thresholds);
    const accepted = ways.filter(
      ({ pattern, over }) => verdictOn({ pattern, probability: over ? accept : ask }, kind, thresholds) === 'accept',
    );
    const patterns = accepted.map(({ pattern }) => pattern);
    const over = sumOf(ways.filter((way) => way.over));
    const counted = {
      accepted: sumOf(accepted),
      asked: sumOf(ways) - sumOf(accepted),
      askedByName: over - sumOf(accepted),
    };
    (await this.scans.leftBelow(tx, kind)).forEach((times, hundredth) => {
      if (hundredth >= Math.round(accept * 100)) counted.accepted += times;
      else if (hundredth >= Math.round(ask * 100)) counted.asked += times;
    });
    const above = await this.pairs.over(tx, kind, accept, patterns, EXAMPLES);
    const below = await this.pairs.under(tx, kind, thresholds, patterns, EXAMPLES);
    return {
      ...counted,
      above: await this.lookAlikes.lines(tx, above),
      below: await this.lookAlikes.lines(tx, below),
    };
  }
}

function sumOf(ways: readonly { times: number }[]): number {
  return ways.reduce((sum, { times }) => sum + times, 0);
}
