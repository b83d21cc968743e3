import type { RecordKind } from '../diff/record';
import { assign } from './assign';
import type { AssignmentGround } from './assigned';
import type { NamedOwner } from './choose-owner';
import type { Counters } from './counters';

/** Something of a person that goes to others. */
export interface HandedOver {
  kind: RecordKind;
  id: string;
}

/** The same with who gets it; `null` where nobody can. */
export interface HandedTo extends HandedOver {
  person: string | null;
  why: string;
  team?: string;
  shares?: Readonly<Record<string, number>>;
}

/**
 * Who gets what somebody leaves, one after the other by the rule that routes go by. The counters go on as it says.
 *
 * @returns Them all, and by how much counters go on.
 */
export function handOver(
  all: readonly HandedOver[],
  rule: NamedOwner,
  ground: AssignmentGround & { counters: Counters },
): { handed: HandedTo[]; advance: Record<string, number> } {
  const advance: Record<string, number> = {};
  const handed = all.map((one): HandedTo => {
    const { person, why, team, shares, advance: own } = assign(rule, one.kind, ground);
    ground.counters.advance(own);
    for (const [name, by] of Object.entries(own)) advance[name] = (advance[name] ?? 0) + by;
    return { ...one, person, why, ...(team ? { team } : {}), ...(shares ? { shares } : {}) };
  });
  return { handed, advance };
}
