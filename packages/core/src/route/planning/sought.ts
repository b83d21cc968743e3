import type { Destination } from '../../destination/destination';
import type { RecordKind } from '../../diff/record';
import { NOT_TOLD, DIFFERENT, type Agreement } from '../../identity/likeness/agreement';
import { compareCompanies, compareFirmNames } from '../../identity/likeness/compare-firms';
import { compareNames } from '../../identity/likeness/compare-names';
import type { ComparedRecord } from '../../identity/likeness/compared';
import { agreements } from '../../identity/likeness/compared-fields';
import { startingModel, type LikenessModel } from '../../identity/likeness/model';
import { howLikely } from '../../identity/likeness/score';
import type { Write } from '../../definition/route-definition';

/** A record as a submission tells of it, to be looked for by name or by likeness. */
export interface Sought {
  record: RecordKind;
  /** Under what those that may be it are found; see `blocksOf`. */
  blocks: readonly string[];
  compared: ComparedRecord;
  /** Whether a rule by name looks for it. */
  byName: boolean;
  /** From what likeness on a rule takes notice; `null` where none goes by likeness. */
  ask: number | null;
  /** What the plan may add to it before it is recognised: its company, or any value that comes from an earlier write. */
  open: 'nothing' | 'company' | 'anything';
}

/** What of a write is looked for, from what is known of it before planning. */
export function soughtBy(
  { record, match = [], links = [], fills }: Write,
  compared: ComparedRecord,
  blocks: readonly string[],
): Sought {
  const asks = match.flatMap((rule) => (rule.by === 'likeness' ? [rule.ask] : []));
  const takesFromWrites = fills.some(({ value }) => value.parts.some((part) => 'write' in part || 'decision' in part));
  return {
    record,
    blocks,
    compared,
    byName: match.some(({ by }) => by === 'name'),
    ask: asks.length ? Math.min(...asks) : null,
    open: takesFromWrites ? 'anything' : links.length ? 'company' : 'nothing',
  };
}

/** What was found under the blocks of what is sought. */
export interface FoundByBlock {
  /** The ids of the records of a kind under a block. */
  under: (record: RecordKind, block: string) => readonly string[];
  /** Those records as they are compared. */
  compared: ReadonlyMap<string, ComparedRecord>;
}

/**
 * Of the records found, those that a rule may take or ask about, whatever the plan adds to what is sought. Planning need not
 * know of the others: most that share a block with somebody are somebody else.
 */
export function worthKnowing(
  sought: readonly Sought[],
  { under, compared }: FoundByBlock,
  likeness: Destination['likeness'],
): Set<string> {
  const worth = new Set<string>();
  for (const one of sought) {
    const model = likeness?.[one.record] ?? startingModel(one.record);
    for (const id of new Set(one.blocks.flatMap((block) => under(one.record, block)))) {
      const other = compared.get(id);
      if (other && !worth.has(id) && mayBeMeant(one, other, model)) worth.add(id);
    }
  }
  return worth;
}

function mayBeMeant(sought: Sought, other: ComparedRecord, model: LikenessModel): boolean {
  const { ask, open } = sought;
  if (open === 'anything' || (sought.byName && sameName(sought.compared, other))) return true;
  if (ask === null) return false;
  return companiesToTry(sought, other).some(
    (company) => howLikely(model, agreements(sought.compared, other, company)) >= ask,
  );
}

function sameName(one: ComparedRecord, other: ComparedRecord): boolean {
  if (one.kind === 'company') return compareFirmNames(one.firmName, other.firmName).level === 'exact';
  const { given, family } = compareNames(one.name, other.name);
  return given.level === 'exact' && family.level === 'exact';
}

/** How the companies of both may agree once the plan has said which one it is. */
function companiesToTry({ compared, open }: Sought, other: ComparedRecord): Agreement[] {
  const known = compareCompanies(compared, other);
  if (open === 'nothing') return [known];
  const { ids, domains, names } = other.companies;
  const same = [...ids, ...domains, ...names.map(({ text }) => text)].map((value): Agreement => ({
    level: 'exact',
    how: 'same',
    value,
  }));
  return [known, ...same, { level: 'near', how: 'alike' }, DIFFERENT, NOT_TOLD];
}
