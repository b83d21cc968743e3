import {
  checkDecisions,
  KnownRecords,
  planRun,
  type DecisionTable,
  type Destination,
  type RouteDefinition,
  type Submission,
  type TableAround,
} from '@haycart/core';
import { fill, route } from './enquiries';
import { freshDatabase, prepare, report } from './support';

const SUBMISSIONS = 5_000;
const PLANNED = 2_000;
const ROUNDS = 10;
const INPUTS = 10;
const SIZES = [50, 100, 200, 500];
/** The longest a check of 500 rows by 10 inputs may take, in milliseconds. */
const LONGEST_MS = 500;
/** What is left of a run’s time once deciding is taken from it, at least. */
const GOAL = 0.95;

/** The same numbers each time. */
function numbers(seed: number): (below: number) => number {
  let state = seed;
  return (below) => {
    state = (state * 1_103_515_245 + 12_345) & 0x7f_ff_ff_ff;
    return state % below;
  };
}

/** Rows of which each tests a third of the columns: towns, numbers and yes or no, as rules of a sales team do. */
function madeTable(rows: number): DecisionTable {
  const random = numbers(rows + 7);
  const as = ['text', 'number', 'yes-no'] as const;
  const inputs = Array.from({ length: INPUTS }, (_, n) => ({
    of: { answer: `q${n}` },
    label: `q${n}`,
    as: as[n % as.length],
  }));
  const cell = (column: number) => {
    if (random(3)) return null;
    if (column % 3 === 2) return { test: random(2) ? 'yes' : 'no' };
    const from = random(60);
    if (column % 3 === 1)
      return [
        { test: 'at-least', value: from },
        { test: 'below', value: from },
        { test: 'between', value: [from, from + random(20)] },
      ][random(3)]!;
    return {
      test: random(4) ? 'is' : 'is-not',
      value: Array.from({ length: 1 + random(4) }, () => `town ${random(40)}`),
    };
  };
  return {
    name: 'Who',
    inputs,
    outputs: [{ name: 'stage', type: 'stage' }],
    rows: Array.from({ length: rows }, () => ({
      when: inputs.map((_, column) => cell(column)),
      then: { stage: random(2) ? 'enquiry' : 'won' },
    })),
    otherwise: { stage: 'enquiry' },
  };
}

/** The milliseconds that the check of a table takes, the least of several. */
function checking(rows: number, around: TableAround): number {
  const table = madeTable(rows);
  let least = Infinity;
  for (let round = 0; round < 5; round += 1) {
    const begun = performance.now();
    const { finished } = checkDecisions({ ...table }, around);
    if (!finished) throw new Error(`The check of ${rows} rows was not finished.`);
    least = Math.min(least, performance.now() - begun);
  }
  return least;
}

/** The route with a table of forty rows that says the stage. */
const deciding = (intake: string): RouteDefinition => {
  const plain = route(intake);
  return {
    ...plain,
    decisions: [madeTable(40)],
    writes: plain.writes.map((write) =>
      write.place
        ? { ...write, place: { ...write.place, stage: { parts: [{ decision: 'Who', output: 'stage' }] } } }
        : write,
    ),
  };
};

function submission(number: number, intake: string): Submission {
  const random = numbers(number + 1);
  const payload = {
    first: `First${number}`,
    last: `Last${number}`,
    email: `p${number}@firm${number % 3_000}.example`,
    company: `Firm ${number % 3_000}`,
    ...Object.fromEntries(
      Array.from({ length: INPUTS }, (_, n) => [`q${n}`, [`town ${random(40)}`, String(random(80)), 'yes'][n % 3]!]),
    ),
  };
  return { id: `s${number}`, intake, receivedAt: '2026-11-30T10:00:00.000Z', payload, visit: {} };
}

/** The microseconds that planning takes with each route: in turns, the least of several, so that what else goes on is not measured. */
function planning(routes: readonly RouteDefinition[], key: string, destination: Destination): number[] {
  const least = routes.map(() => Infinity);
  const samples = Array.from({ length: PLANNED }, (_, number) => submission(number, key));
  for (let round = 0; round < ROUNDS; round += 1)
    for (const [place, one] of routes.entries()) {
      const newIds = Object.fromEntries(one.writes.map(({ as }) => [as, as]));
      const start = performance.now();
      for (const sample of samples) planRun(one, sample, new KnownRecords([], []), { destination, newIds });
      least[place] = Math.min(least[place]!, ((performance.now() - start) * 1_000) / PLANNED);
    }
  return least;
}

const prepared = await prepare(await freshDatabase('bench_decide'), route);
const { services, workspaceId, key } = prepared;
await fill(prepared, SUBMISSIONS);
const begun = performance.now();
await services.router.drain();
const routed = ((performance.now() - begun) * 1_000) / SUBMISSIONS;
const destination = await services.database.inWorkspace(workspaceId, (tx) => services.destinations.load(tx));
await services.close();

const [plain = 0, decided = 0] = planning([route(key), deciding(key)], key, destination);
const left = 1 - (decided - plain) / routed;
const times = SIZES.map((rows) => checking(rows, { destination, writes: [], tables: [] }));
report({
  bench: 'decide',
  ratio: left,
  goal: GOAL,
  met: left >= GOAL && times.at(-1)! <= LONGEST_MS,
  figures: {
    'a run, µs': routed,
    'planning a run, µs': plain,
    'planning it with a table of 40 rows and 10 columns, µs': decided,
    'added by deciding, share of a run (goal at most 0.05)': 1 - left,
    ...Object.fromEntries(SIZES.map((rows, at) => [`check of ${rows} rows by ${INPUTS} columns, ms`, times[at]!])),
    'longest check allowed, ms': LONGEST_MS,
  },
});
