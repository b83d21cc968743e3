import { KnownRecords, planRun, type RouteDefinition, type Submission } from '@haycart/core';
import { fill, route } from './enquiries';
import { freshDatabase, prepare, report } from './support';

const SUBMISSIONS = 5_000;
const PLANNED = 2_000;
const ROUNDS = 10;
/** What is left of a run’s time once planning its follow-ups is taken from it, at least. */
const GOAL = 0.9;

/** A task, a note and a document a run, beside the same route without them. */
const following = (intake: string): RouteDefinition => ({
  ...route(intake),
  followUps: [
    { do: 'task', on: 'sale', title: { parts: [{ answer: 'company' }] }, due: { in: 2, unit: 'hours', working: true } },
    { do: 'note', on: 'person', body: { parts: [{ answer: 'message' }] } },
    { do: 'document', on: 'person', title: { parts: [{ answer: 'company' }] } },
  ],
});

/** The microseconds that a run takes in this process, and how to plan one alone. */
async function measured(definition: (intake: string) => RouteDefinition) {
  const prepared = await prepare(await freshDatabase('bench_follow'), definition);
  const { services, workspaceId, key } = prepared;
  await fill(prepared, SUBMISSIONS);
  const begun = performance.now();
  await services.router.drain();
  const routed = ((performance.now() - begun) * 1_000) / SUBMISSIONS;
  const destination = await services.database.inWorkspace(workspaceId, (tx) => services.destinations.load(tx));
  await services.close();
  const planned = definition(key);
  const newIds = Object.fromEntries(planned.writes.map(({ as }) => [as, as]));
  const plan = (number: number) =>
    planRun(planned, submission(number, key), new KnownRecords([], []), { destination, newIds });
  return { routed, plan };
}

/** The microseconds that planning takes: in turns, the least of several, so that what else goes on is not measured. */
function planning(plans: readonly ((number: number) => unknown)[]): number[] {
  const least = plans.map(() => Infinity);
  for (let round = 0; round < ROUNDS; round += 1)
    for (const [place, plan] of plans.entries()) {
      const start = performance.now();
      for (let number = 0; number < PLANNED; number += 1) plan(number);
      least[place] = Math.min(least[place]!, ((performance.now() - start) * 1_000) / PLANNED);
    }
  return least;
}

function submission(number: number, intake: string): Submission {
  const payload = {
    first: `First${number}`,
    last: `Last${number}`,
    email: `p${number}@firm${number % 3_000}.example`,
    company: `Firm ${number % 3_000}`,
    message: 'Two bays for seed trials, heated, with shading. '.repeat(6),
  };
  return { id: `s${number}`, intake, receivedAt: '2026-11-30T10:00:00.000Z', payload, visit: {} };
}

const before = await measured(route);
const followed = await measured(following);
const after = await measured(route);
const routed = (before.routed + after.routed) / 2;
const [planned = 0, withThem = 0] = planning([before.plan, followed.plan]);
const left = 1 - (withThem - planned) / routed;
report({
  bench: 'follow',
  ratio: left,
  goal: GOAL,
  met: left >= GOAL,
  figures: {
    'a run, µs': routed,
    'a run with a task, a note and a document, all written, µs': followed.routed,
    'planning a run, µs': planned,
    'planning it with them, µs': withThem,
    'added by planning, share of a run (goal at most 0.1)': 1 - left,
  },
});
