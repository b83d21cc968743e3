import type { ColourMark, ListView, RecordKind } from '@haycart/core';
import type { Services } from '@haycart/server/seeding';
import type { Random } from '../random';
import type { Tx } from '../tx';
import { CONSENT_WORDS } from './forms';

type By = { kind: 'person'; id: string };

/** The people of the demo, by key, with their ids and teams. */
export interface Staff {
  ids: ReadonlyMap<string, string>;
  team: (key: string) => readonly string[];
}

const TAGS: [name: string, colour: ColourMark][] = [
  ['Press', 'plum'],
  ['Listed building', 'clay'],
  ['Met at the show', 'straw'],
  ['Wants a visit', 'teal'],
  ['Key account', 'moss'],
];
const LISTS: [name: string, colour: ColourMark][] = [
  ['Spring newsletter', 'straw'],
  ['Dealer news', 'slate'],
  ['Open day guests', 'moss'],
];
const RATES = [
  { currency: 'EUR', from: '2025-01-01', rate: '0.8430' },
  { currency: 'EUR', from: '2026-07-01', rate: '0.8512' },
  { currency: 'CAD', from: '2025-01-01', rate: '0.5510' },
  { currency: 'USD', from: '2025-01-01', rate: '0.7840' },
];
const NOTES = [
  'Spoke on the phone. They want the drawings before the board meets.',
  'Asked about wind load on the north side; sent the table.',
  'The old house comes down in the autumn holidays, so nothing before that.',
  'Prefers to be called after four.',
];
const TASKS = ['Send the drawings', 'Call about the date', 'Ask for the ground plan', 'Send the price for shading'];
const REASONS = ['Too dear', 'Chose another firm', 'No answer', 'Not now'];

const VIEWS: { record: RecordKind; name: string; view: ListView }[] = [
  {
    record: 'contact',
    name: 'Teaching gardens',
    view: {
      columns: ['full_name', 'email', 'company', 'growing_for', 'tags', 'owner', 'updated_at'].map((field) => ({
        field,
      })),
      filter: { all: [{ of: { field: 'growing_for' }, test: 'is-any-of', value: ['teaching-garden'] }] },
    },
  },
  {
    record: 'deal',
    name: 'Mine, still open',
    view: {
      columns: ['name', 'contacts', 'stage', 'value', 'bays', 'stage_since'].map((field) => ({ field })),
      filter: {
        all: [
          { of: { field: 'owner' }, test: 'me' },
          { of: { field: 'status' }, test: 'is', value: 'open' },
        ],
      },
      sort: { field: 'stage_since', down: false },
    },
  },
];

/** What a workspace has before its year begins: words to mark records with, rates, and ways to look at lists. */
export async function prepareLife(services: Services, tx: Tx): Promise<void> {
  for (const [name, colour] of TAGS) await services.labels.add(tx, 'tag', name, colour);
  for (const [name, colour] of LISTS) await services.labels.add(tx, 'list', name, colour);
  await services.rates.replace(tx, RATES, 'GBP');
  for (const view of VIEWS) await services.views.add(tx, { ...view, shared: true }, null);
}

/** Lets people look after a month's records: owners, tags, lists, leads called and decided, notes and tasks. */
export async function liveAMonth(
  services: Services,
  workspaceId: string,
  random: Random,
  { from, to, staff }: { from: Date; to: Date; staff: Staff },
): Promise<void> {
  await services.database.inWorkspace(workspaceId, async (tx) => {
    // Deals have an owner at once where a route gives them to somebody.
    const fresh = (kind: RecordKind) =>
      tx.statement<Fresh & { number: string }>(
        `demo_fresh_${kind}`,
        `select id, number, ${kind === 'deal' || kind === 'lead' ? 'pipeline' : 'null::text as pipeline'}, owner, created_at from ${kind}
         where workspace_id = $1 and (owner is null or ${kind === 'deal'} and created_at >= $2) order by number`,
        [workspaceId, from],
      );
    const month = { services, tx, random, staff, from, to };
    const deals = await fresh('deal');
    const contacts = await fresh('contact');
    const without = deals.filter(({ owner }) => owner === null);
    await assign(month, 'deal', without, ({ pipeline }) =>
      pipeline === 'dealers' ? 'dealer-desk' : random.pick(BUILDERS),
    );
    await assign(month, 'contact', contacts, () => random.pick(BUILDERS));
    await assign(month, 'lead', await fresh('lead'), () => 'builds-south');
    await mark(month, 'contact', contacts, 0.3);
    await mark(month, 'deal', deals, 0.2);
    await join(month, contacts);
    await decideLeads(month, workspaceId);
    await write(month, deals);
    await agree(month, contacts);
  });
}

const BUILDERS = ['builds-north', 'builds-south', 'continental'];

interface Month {
  services: Services;
  tx: Tx;
  random: Random;
  staff: Staff;
  from: Date;
  to: Date;
}
interface Fresh {
  id: string;
  pipeline: string | null;
  owner: string | null;
  created_at: Date;
}

function by({ staff }: Month, key: string): By {
  return { kind: 'person', id: staff.ids.get(key)! };
}

const HOUR = 3_600_000;
const WEEK = 7 * 24 * HOUR;

/** Records in groups that somebody looks after in one go: those of a week, by what is done with them; and when that is. */
function inGroups<Key>(
  { to }: Month,
  records: readonly Fresh[],
  key: (one: Fresh) => Key | null,
): { key: Key; ids: string[]; at: string }[] {
  const groups = new Map<string, { key: Key; ids: string[]; last: number }>();
  for (const one of records) {
    const own = key(one);
    if (own === null) continue;
    const name = `${String(own)} ${Math.floor(one.created_at.getTime() / WEEK)}`;
    const group = groups.get(name) ?? { key: own, ids: [], last: 0 };
    group.ids.push(one.id);
    group.last = Math.max(group.last, one.created_at.getTime());
    groups.set(name, group);
  }
  return [...groups.values()].map(({ last, ...group }) => ({
    ...group,
    at: new Date(Math.min(last + HOUR, to.getTime())).toISOString(),
  }));
}

async function assign(month: Month, kind: RecordKind, records: readonly Fresh[], team: (one: Fresh) => string) {
  const { services, tx, random, staff } = month;
  const destination = await services.destinations.load(tx);
  for (const { key: owner, ids, at } of inGroups(month, records, (one) => random.pick(staff.team(team(one)))))
    await services.edits.change(tx, kind, ids, { values: { owner } }, destination, by(month, 'robin-nye'), at);
}

async function mark(month: Month, kind: RecordKind, records: readonly Fresh[], share: number) {
  const { services, tx, random } = month;
  const destination = await services.destinations.load(tx);
  const chosen = () => (random.chance(share) ? random.pick(TAGS)[0] : null);
  for (const { key: name, ids, at } of inGroups(month, records, chosen))
    await services.edits.change(tx, kind, ids, { add: { tags: [name] } }, destination, by(month, 'morag-sel'), at);
}

async function join(month: Month, contacts: readonly Fresh[]) {
  const { services, tx, random } = month;
  const destination = await services.destinations.load(tx);
  const comings = LISTS.flatMap(([name], index) =>
    inGroups(month, contacts, () => (random.chance([0.4, 0.05, 0.12][index]!) ? name : null)),
  );
  const goings = comings.flatMap(({ key, ids, at }) => {
    const left = ids.filter(() => random.chance(0.06));
    return left.length ? [{ ids: left, at: later(month, at), edit: { remove: { lists: [key] } } }] : [];
  });
  const moves = [...comings.map(({ key, ...one }) => ({ ...one, edit: { add: { lists: [key] } } })), ...goings];
  // A history is read in the order of its times, so it is made in that order.
  for (const { ids, at, edit } of moves.sort((a, b) => a.at.localeCompare(b.at)))
    await services.edits.change(tx, 'contact', ids, edit, destination, by(month, 'sunita-kaur'), at);
}

/** Some days later, but within the month. */
function later({ random, to }: Month, at: string): string {
  const from = Date.parse(at);
  return new Date(from + random.next() * Math.max(0, to.getTime() - from)).toISOString();
}

async function decideLeads(month: Month, workspaceId: string) {
  const { services, tx, random } = month;
  const open = await tx.statement<{ id: string; email: string | null; stage: string; stage_since: Date }>(
    'demo_open_leads',
    `select id, email, stage, stage_since from lead where workspace_id = $1 and status = 'open' order by number`,
    [workspaceId],
  );
  const destination = await services.destinations.load(tx);
  const wish = { pipeline: 'new-builds', stage: 'enquiry' };
  for (const { id, email, stage, stage_since: since } of open) {
    const roll = random.next();
    const at = later(month, new Date(Math.max(since.getTime() + HOUR, month.from.getTime())).toISOString());
    if (roll < 0.35 && email) await services.leads.qualify(tx, id, wish, destination, by(month, 'tomos-pugh'), at);
    else if (roll < 0.62)
      await services.leads.setAside(tx, id, random.pick(REASONS), destination, by(month, 'sunita-kaur'), at);
    else if (roll < 0.85 && stage === 'new')
      await services.deals.move(tx, 'lead', id, { stage: 'called' }, by(month, 'tomos-pugh'), at);
  }
}

async function write(month: Month, deals: readonly Fresh[]) {
  const { services, tx, random } = month;
  for (const { id, created_at: created } of deals) {
    const at = new Date(later(month, created.toISOString()));
    const who = random.pick(['robin-nye', 'idris-vale', 'sunita-kaur', 'jonas-ebel']);
    if (random.chance(0.22)) await services.activities.addNote(tx, id, random.pick(NOTES), by(month, who), at);
    if (random.chance(0.1)) {
      const due = new Date(Date.now() + random.between(-3, 14) * 86_400_000).toISOString().slice(0, 10);
      await services.activities.addTask(tx, id, { text: random.pick(TASKS), owner: who, due }, by(month, who), at);
    }
  }
}

async function agree(month: Month, contacts: readonly Fresh[]) {
  const { services, tx, random } = month;
  for (const { id, created_at: created } of contacts.filter(() => random.chance(0.25)))
    await services.consents.add(
      tx,
      id,
      {
        channel: 'email',
        state: random.chance(0.93) ? 'given' : 'withdrawn',
        words: CONSENT_WORDS,
        place: 'on the form “Glazing price list”',
      },
      by(month, 'robin-nye'),
      created,
    );
}
