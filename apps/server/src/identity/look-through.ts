import {
  agreements,
  BlockIndex,
  commonValues,
  comparedForm,
  countPatterns,
  estimateModel,
  foundPair,
  howLikely,
  spreadPairs,
  type Around,
  type ComparedRecord,
  type FieldValues,
  type FoundPair,
  type LikenessModel,
  type Pattern,
  type RecordKind,
} from '@haycart/core';

/** A record as it is read for comparing. */
export interface ReadRecord extends Around {
  id: string;
  values: FieldValues;
}

/** What people decided of pairs, counted by how these agree. */
export interface DecidedPatterns {
  same: [Pattern, number][];
  different: [Pattern, number][];
}

/** One part of the records, whose pairs with all before them are compared. */
export interface PartToCompare {
  part: number;
  size: number;
  model: LikenessModel;
  ask: number;
}

export interface ComparedPart {
  part: number;
  pairs: FoundPair[];
  compared: number;
  /** How many pairs have which probability, in hundredths. */
  scores: number[];
}

export type ToScan =
  | { records: ReadRecord[]; kind: RecordKind }
  | { learn: { start: LikenessModel; decided: DecidedPatterns } }
  | PartToCompare;

export type FromScan = { read: number } | { model: LikenessModel } | ComparedPart;

/** How many pairs are learned from; more tell no more. */
const MOST_LEARNED_FROM = 200_000;
const RANDOM_PAIRS = 40_000;

/** All records of a kind in memory, in the order of their ids, and the pairs among them that may be the same. */
export class LookThrough {
  readonly #ids: string[] = [];
  readonly #forms: ComparedRecord[] = [];
  readonly #blocks = new BlockIndex();

  answer(message: ToScan): FromScan {
    if ('records' in message) return this.#read(message.kind, message.records);
    if ('learn' in message) return { model: this.#learn(message.learn.start, message.learn.decided) };
    return this.#compare(message);
  }

  #read(kind: RecordKind, records: readonly ReadRecord[]): FromScan {
    for (const { id, values, ...around } of records) {
      const form = comparedForm(kind, values, around);
      this.#ids.push(id);
      this.#forms.push(form);
      this.#blocks.add(form);
    }
    return { read: this.#ids.length };
  }

  #learn(start: LikenessModel, { same, different }: DecidedPatterns): LikenessModel {
    const forms = this.#forms;
    return estimateModel(
      { ...start, records: forms.length, common: commonValues(forms) },
      {
        records: forms.length,
        candidates: countPatterns(firstOf(this.#blocks.pairs(), MOST_LEARNED_FROM), forms),
        random: countPatterns(spreadPairs(forms.length, RANDOM_PAIRS), forms),
        same: new Map(same),
        different: new Map(different),
      },
    );
  }

  #compare({ part, size, model, ask }: PartToCompare): ComparedPart {
    const pairs: FoundPair[] = [];
    const scores = new Array<number>(101).fill(0);
    let compared = 0;
    const end = Math.min(this.#ids.length, (part + 1) * size);
    for (const [a, b] of this.#blocks.pairs(part * size, end)) {
      const [one, other] = [this.#forms[a]!, this.#forms[b]!];
      const agreed = agreements(one, other);
      const probability = howLikely(model, agreed);
      compared += 1;
      scores[Math.floor(probability * 100)]! += 1;
      if (probability >= ask) pairs.push(foundPair(this.#ids[a]!, this.#ids[b]!, probability, agreed));
    }
    return { part, pairs, compared, scores };
  }
}

function* firstOf<Item>(items: Iterable<Item>, most: number): Generator<Item> {
  let taken = 0;
  for (const item of items) {
    if (taken++ >= most) return;
    yield item;
  }
}
