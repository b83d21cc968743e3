import {
  BlockIndex,
  commonValues,
  comparedForm,
  countPatterns,
  estimateModel,
  likeness,
  normalPhone,
  spreadPairs,
  startingModel,
  USUAL_THRESHOLDS,
  verdictOn,
  type ComparedRecord,
  type LikenessModel,
} from '@haycart/core';
import { generatePeople, type GeneratedPeople } from '@haycart/core/testing/people';
import { report } from './support';

/** Seeds that nothing was tuned on; the tuning used smaller ones. */
const SEEDS = [301, 302, 303, 304];
const PEOPLE = 6_000;
const GOALS = { f1: 0.97, asked: 0.03 };

/** How often pairs were judged rightly and wrongly. */
interface Judged {
  right: number;
  wrong: number;
  missed: number;
  asked: number;
  pairs: number;
}

const none = (): Judged => ({ right: 0, wrong: 0, missed: 0, asked: 0, pairs: 0 });

function learned(forms: readonly ComparedRecord[]): LikenessModel {
  return estimateModel(
    { ...startingModel('contact', forms.length), records: forms.length, common: commonValues(forms) },
    {
      records: forms.length,
      candidates: countPatterns(new BlockIndex(forms).pairs(), forms),
      random: countPatterns(spreadPairs(forms.length, 40_000), forms),
      same: new Map(),
      different: new Map(),
    },
  );
}

/** Every pair that blocking finds, and every true pair that it does not. */
function judge(
  people: GeneratedPeople,
  verdict: (a: number, b: number) => 'accept' | 'ask' | 'different',
  forms: readonly ComparedRecord[],
): Judged {
  const { records } = people;
  const judged = none();
  const same = new Map<number, number>();
  for (const { person } of records) same.set(person, (same.get(person) ?? 0) + 1);
  const truth = [...same.values()].reduce((sum, times) => sum + (times * (times - 1)) / 2, 0);
  let found = 0;
  for (const [a, b] of new BlockIndex(forms).pairs()) {
    const isSame = records[a]!.person === records[b]!.person;
    const said = verdict(a, b);
    judged.pairs += 1;
    if (isSame) found += 1;
    if (said === 'ask') judged.asked += 1;
    else if (said === 'accept') judged[isSame ? 'right' : 'wrong'] += 1;
    else if (isSame) judged.missed += 1;
  }
  judged.missed += truth - found;
  judged.pairs += truth - found;
  return judged;
}

function f1({ right, wrong, missed }: Judged): { precision: number; recall: number; f1: number } {
  const precision = right / Math.max(1, right + wrong);
  const recall = right / Math.max(1, right + missed);
  return { precision, recall, f1: (2 * precision * recall) / Math.max(1e-9, precision + recall) };
}

const sums = { email: none(), rules: none(), likeness: none(), starting: none() };
const calibration = Array.from({ length: 10 }, () => ({ pairs: 0, same: 0 }));
const related = { cases: 0, merged: 0 };
const add = (into: Judged, more: Judged) => {
  for (const key of Object.keys(into) as (keyof Judged)[]) into[key] += more[key];
};

for (const seed of SEEDS) {
  const people = generatePeople(seed, PEOPLE);
  const { records } = people;
  const forms = records.map(({ values, company }) =>
    comparedForm('contact', values, { companies: company ? [company] : [] }),
  );
  const email = (a: number, b: number) =>
    records[a]!.values.email !== undefined && records[a]!.values.email === records[b]!.values.email;
  const phone = (a: number, b: number) => {
    const [one, other] = [records[a]!.values.phone, records[b]!.values.phone].map((given) => {
      const read = normalPhone(String(given ?? ''), 'GB');
      return read.ok ? read.phone : null;
    });
    return one !== null && one === other;
  };
  const named = (a: number, b: number) =>
    forms[a]!.name?.given[0] === forms[b]!.name?.given[0] &&
    forms[a]!.name?.family.join() === forms[b]!.name?.family.join();
  const model = learned(forms);
  const start = startingModel('contact', records.length);
  const by = (used: LikenessModel) => (a: number, b: number) =>
    verdictOn(likeness(used, forms[a]!, forms[b]!), 'contact', USUAL_THRESHOLDS);
  add(
    sums.email,
    judge(people, (a, b) => (email(a, b) ? 'accept' : 'different'), forms),
  );
  // The rules of a careful route: the address where the name fits, or the number and the name.
  add(
    sums.rules,
    judge(people, (a, b) => ((email(a, b) || phone(a, b)) && named(a, b) ? 'accept' : 'different'), forms),
  );
  add(sums.likeness, judge(people, by(model), forms));
  add(sums.starting, judge(people, by(start), forms));
  for (const [a, b] of new BlockIndex(forms).pairs()) {
    const { probability } = likeness(model, forms[a]!, forms[b]!);
    const bin = calibration[Math.min(9, Math.floor(probability * 10))]!;
    bin.pairs += 1;
    if (records[a]!.person === records[b]!.person) bin.same += 1;
  }
  const places = new Map(records.map(({ id }, index) => [id, index]));
  for (const [one, other] of [...people.relatives, ...people.colleagues]) {
    const [a, b] = [places.get(one)!, places.get(other)!];
    if (records[a]!.person === records[b]!.person) continue;
    related.cases += 1;
    if (by(model)(a, b) === 'accept') related.merged += 1;
  }
}

const figures: Record<string, number> = {};
for (const [name, judged] of Object.entries(sums)) {
  const { precision, recall, f1: f } = f1(judged);
  figures[`${name}: precision`] = precision;
  figures[`${name}: recall`] = recall;
  figures[`${name}: F1`] = f;
  figures[`${name}: asked, share of pairs`] = judged.asked / judged.pairs;
}
calibration.forEach(({ pairs, same }, tenth) => {
  figures[`said ${tenth * 10} to ${tenth * 10 + 10} %, were the same`] = same / Math.max(1, pairs);
});
const thousand = (related.merged / Math.max(1, related.cases)) * 1_000;
figures['relatives and colleagues, cases'] = related.cases;
figures['merged unasked, of 1,000 of them (goal 0)'] = thousand;
const { f1: reached } = f1(sums.likeness);
const asked = sums.likeness.asked / sums.likeness.pairs;
report({
  bench: 'quality',
  ratio: reached / f1(sums.email).f1,
  goal: GOALS.f1,
  met: reached >= GOALS.f1 && asked <= GOALS.asked && related.merged === 0,
  figures: { 'likeness: F1 (goal 0.97)': reached, 'likeness: asked (goal at most 0.03)': asked, ...figures },
});
