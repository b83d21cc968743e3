import pg from 'pg';
import { fill, route } from './enquiries';
import { freshDatabase, prepare, report } from './support';

const SUBMISSIONS = 10_000;
/** How much faster than routing them live. */
const GOAL = 10;
/** How much the heap may grow between the first and the last batches, in bytes: no more than it wavers. */
const FLAT = 30_000_000;

/** Two versions of a route over past submissions, beside routing the same submissions live in the same process. */
const databaseUrl = await freshDatabase('bench_rehearse');
const prepared = await prepare(databaseUrl, route);
const { services, workspaceId, key } = prepared;
await fill(prepared, SUBMISSIONS);
const client = new pg.Client({ connectionString: databaseUrl });
await client.connect();
await client.query('analyze');

const begunLive = performance.now();
await services.router.drain();
const live = performance.now() - begunLive;
await client.query('analyze');
await client.end();

const [published] = await services.database.inWorkspace(workspaceId, (tx) => services.routes.lines(tx));
const draft = route(key);
draft.writes[1]!.fills[0]!.value.finishers = [{ use: 'trim' }, { use: 'letter-case', with: { to: 'capitals' } }];
await services.database.inWorkspace(workspaceId, (tx) => services.routes.saveDraft(tx, published!.id, draft, 'bench'));
const { id } = await services.comparisons.begin(workspaceId, published!.id, { last: SUBMISSIONS });
const heaps: number[] = [];
let found;
do {
  await new Promise((resolve) => setTimeout(resolve, 100));
  found = await services.database.inWorkspace(workspaceId, (tx) => services.comparisons.one(tx, published!.id, id));
  heaps.push(process.memoryUsage().heapUsed);
} while (found.state === 'working');
const rehearsed = Date.parse(found.finishedAt!) - Date.parse(found.startedAt);
await services.close();
if (found.looked !== SUBMISSIONS || found.differ === 0) throw new Error(`Rehearsed wrongly: ${JSON.stringify(found)}`);

const third = Math.max(1, Math.floor(heaps.length / 3));
const mean = (some: number[]) => some.reduce((sum, one) => sum + one, 0) / some.length;
const growth = mean(heaps.slice(-third)) - mean(heaps.slice(0, third));
report({
  bench: 'rehearse',
  ratio: live / rehearsed,
  goal: GOAL,
  met: live / rehearsed >= GOAL && growth <= FLAT,
  figures: {
    'submissions, two versions each': SUBMISSIONS,
    'routed live, ms': live,
    'rehearsed, ms': rehearsed,
    'heap grew, MB': growth / 1e6,
  },
});
