import { Inject, Injectable } from '@nestjs/common';
import {
  conditionReader,
  conditionSetting,
  describeClause,
  evaluate,
  nearMiss,
  partLabel,
  submissionReader,
  type Condition,
  type RouteDefinition,
} from '@haycart/core';
import type { PassingShape } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';
import { DestinationService } from '../destination/destination.service';
import { readSubmission, type StoredSubmission } from './route-batch';

/** How many of the latest submissions a condition is tried on. */
const LOOKED_AT = 1_000;

/** Tries a condition on what arrived last. */
@Injectable()
export class PassingService {
  constructor(@Inject(DestinationService) private readonly destinations: DestinationService) {}

  /** How many of the latest submissions of a route's intakes meet a condition, and how many all but do. */
  async count(tx: WorkspaceTx, route: RouteDefinition, condition: Condition): Promise<PassingShape> {
    const destination = await this.destinations.load(tx);
    const rows = await tx.statement<StoredSubmission & { key: string }>(
      'latest_of_intakes',
      `select s.id, s.format, s.body, s.visit, s.origin, s.received_at, i.key from submission s
       join intake i on i.workspace_id = s.workspace_id and i.id = s.intake_id
       where s.workspace_id = $1 and i.key = any($2::text[]) and s.state <> 'set-aside' order by s.received_at desc, s.id desc limit $3`,
      [tx.workspaceId, route.from, LOOKED_AT],
    );
    const misses = new Map<string, PassingShape['nearMisses'][number]>();
    let looked = 0;
    let pass = 0;
    for (const row of rows) {
      const read = readSubmission(row, row.key);
      if (!read.ok) continue;
      looked += 1;
      const reader = conditionReader(submissionReader(read.submission, destination), route, destination);
      const setting = conditionSetting(read.submission, destination);
      if (evaluate(condition, reader, setting).met) pass += 1;
      else {
        const miss = nearMiss(condition, reader, setting);
        if (!miss) continue;
        const clause = describeClause(miss.clause, (part) => ({ label: partLabel(part, route, destination) }));
        const known = misses.get(`${miss.differs} ${clause}`) ?? {
          clause,
          differs: miss.differs,
          count: 0,
          example: row.id,
        };
        misses.set(`${miss.differs} ${clause}`, { ...known, count: known.count + 1 });
      }
    }
    return { looked, pass, nearMisses: [...misses.values()].sort((a, b) => b.count - a.count) };
  }
}
