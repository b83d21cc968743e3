import type { RouteDefinition } from '@haycart/core';
import type { Services } from '@haycart/server/seeding';
import { FIRST_NAMES, LAST_NAMES } from '../material';
import { Random } from '../random';
import { answer, SOURCE, text } from '../values';

const DAY = 86_400_000;
/** The show was on while its campaign cost something. */
const DAYS_AGO = 212;
const ROWS = 28;
const HEAD = ['First name', 'Last name', 'E-mail', 'Bays', 'Budget', 'Wants'];
const WANTS = [
  'a brochure',
  'a call after the show',
  'a visit, the wall faces south',
  'prices for two',
  'to see it built',
];

/** Takes what was written down at the stand: a person and a deal for each row. */
const SHOW_ROUTE: RouteDefinition = {
  format: 'haycart.route/1',
  name: 'Spring show stand',
  from: ['show'],
  writes: [
    {
      as: 'person',
      record: 'contact',
      match: [{ by: 'email' }],
      whenMatched: 'fill-blanks',
      fills: [
        { field: 'first_name', value: answer('First name', 'trim', 'collapse') },
        { field: 'last_name', value: answer('Last name', 'trim', 'collapse') },
        { field: 'email', value: answer('E-mail', 'email') },
        { field: 'source', value: SOURCE, overwrite: 'if-blank' },
      ],
    },
    {
      as: 'sale',
      record: 'deal',
      links: ['person'],
      place: { pipeline: text('new-builds'), stage: text('enquiry'), again: 'update' },
      fills: [
        {
          field: 'name',
          value: { parts: [{ write: 'person', field: 'full_name' }, { text: 'spring show' }], joinWith: ', ' },
        },
        { field: 'bays', value: answer('Bays', 'trim') },
        { field: 'value', value: answer('Budget', 'trim') },
        { field: 'message', value: answer('Wants', 'whole-text') },
        { field: 'source', value: SOURCE, overwrite: 'if-blank' },
      ],
    },
  ],
};

/** Brings in the file from the stand at the spring show, as on the day after it, and lets its deals go on since. */
export async function bringInShow(
  services: Services,
  { workspaceId, now, by }: { workspaceId: string; now: Date; by: string },
): Promise<void> {
  const random = new Random(218);
  const at = new Date(now.getTime() - DAYS_AGO * DAY);
  const file = await services.database.inWorkspace(workspaceId, async (tx) => {
    const { id } = await services.intakes.add(tx, { key: 'show', kind: 'sheet', name: 'Spring show stand' });
    const constant = { channel: 'event', source: 'show-stand', medium: 'event', campaign: 'spring-show' };
    await services.intakes.change(tx, id, { source: { constant } });
    const route = await services.routes.add(tx, SHOW_ROUTE);
    await services.routes.publish(tx, route.id, 'Robin Nye', 'First version');
    const bytes = Buffer.from(sheet(random));
    const brought = await services.sheets.bringIn(tx, { name: 'spring-show.csv', bytes, into: 'show' }, 'Robin Nye');
    await tx.statement('demo_show_day', 'update sheet_file set at = $2 where workspace_id = $1', [workspaceId, at]);
    return brought.file;
  });
  await services.sheetReading.read(workspaceId, file);
  await services.router.drain();
  await services.database.inWorkspace(workspaceId, async (tx) => {
    const deals = await tx.statement<{ id: string }>(
      'demo_show_deals',
      `select id from deal where workspace_id = $1 and name like '%, spring show' order by number`,
      [workspaceId],
    );
    const moves = deals.map(({ id }, nth) => ({
      id,
      stage: isWon(nth) ? 'won' : 'lost',
      ...(isWon(nth) ? {} : { reason: random.pick(['Too dear', 'No answer', 'Not now']) }),
      at: new Date(at.getTime() + random.between(20, 150) * DAY).toISOString(),
    }));
    await services.deals.moveEach(tx, 'deal', moves, { kind: 'person', id: by });
  });
}

/** Each fourth of the people at the stand bought something. */
function isWon(nth: number): boolean {
  return nth % 4 === 0;
}

/** The file, as a spreadsheet of a country with decimal commas saves it. */
function sheet(random: Random): string {
  const rows = Array.from({ length: ROWS }, (_, nth) => {
    const first = FIRST_NAMES[(nth * 7 + 11) % FIRST_NAMES.length]!;
    const last = LAST_NAMES[(nth * 5 + 3) % LAST_NAMES.length]!;
    const email = `${first}.${last}@stand.example`
      .toLowerCase()
      .normalize('NFD')
      .replace(/[^\w.@]/g, '');
    const budget = isWon(nth) ? `£ ${random.between(6, 21)},500` : '';
    return [first, last, email, random.chance(0.5) ? random.between(1, 6) : '', budget, random.pick(WANTS)];
  });
  return [HEAD, ...rows].map((row) => row.join(';')).join('\r\n');
}
