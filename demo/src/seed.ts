import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { FormDefinition, Pipeline, RouteDefinition } from '@haycart/core';
import { openServices, type Services } from '@haycart/server/seeding';
import { Random } from './random';
import { MARRAM } from './marram';
import { FIELDS, PIPELINES } from './quillfern/destination';
import { CALLS_FORM, CANCEL_FORM, GRANT_FORM, PRICELIST_FORM, SURVEY_FORM, THEMES } from './quillfern/forms';
import { withEarlierVisits } from './quillfern/earlier-visits';
import { countVisitors } from './quillfern/form-counts';
import { liveAMonth, prepareLife } from './quillfern/life';
import { addChannels, answerGrants, beginDealerDraft, doTasks, publishAgain, sendSinceAMonth } from './follow-ups';
import { answerEnquiries, leaveTheLatest, promiseAnswers } from './answers';
import { madeUpCancellations } from './cancellations';
import { madeUpGrants } from './grants';
import { runCampaigns } from './quillfern/campaigns';
import { CANCEL_ROUTE, CANCEL_ROUTE_WRITING } from './quillfern/cancellation-route';
import { GRANT_ROUTE, GRANT_ROUTE_BY_MAIL } from './quillfern/grant-route';
import { PRICELIST_ROUTE, PRICELIST_ROUTE_CONFIRMING } from './quillfern/price-list';
import { CALLS_ROUTE, DEALERS_ROUTE, SURVEY_ROUTE, SURVEY_ROUTE_TELLING } from './quillfern/routes';
import { bringInShow } from './quillfern/show';
import { personKey, TEAM_DETAILS, TEAMS } from './quillfern/teams';
import { VALUE_SETS } from './quillfern/value-sets';
import { plantedArrivals } from './planted';
import { madeUpYear, type MadeUp } from './submissions';
import type { Tx } from './tx';

const DAY = 86_400_000;
const MONTH = 30 * DAY;
/** The demo's people sign in with one click; this password is for trying the form. */
const PASSWORD = 'glasshouse';

/** Fills an empty database with the demo: its submissions go through the real routing code, month by month. */
async function seed(): Promise<void> {
  const services = await openServices(process.env, join(dirname(fileURLToPath(import.meta.url)), '../drizzle'));
  try {
    if (await services.workspaces.anyExists()) return;
    const now = new Date();
    await seedQuillfern(services, now);
    await seedMarram(services, now);
    for (const { id } of await services.workspaces.all()) await dateRunsOnArrival(services, id);
  } finally {
    await services.close();
  }
}

async function seedQuillfern(services: Services, now: Date): Promise<void> {
  const { workspaceId, intakes, mover, staff } = await services.workspaces.add(
    {
      key: 'quillfern',
      name: 'Quillfern Glasshouses',
      defaultCountry: 'GB',
      defaultCurrency: 'GBP',
      pipelines: PIPELINES,
    },
    async (tx) => {
      await services.fields.add(tx, FIELDS);
      const people = new Map<string, string>();
      for (const { key, name, people: names } of TEAMS) {
        for (const person of names)
          people.set(
            person,
            await services.people.add(tx, {
              name: person,
              email: address(person, 'quillfern.example'),
              password: PASSWORD,
            }),
          );
        await services.teams.addTeam(
          tx,
          name,
          names.map((one) => personKey(one)),
          key,
        );
        for (const person of names) await services.teams.change(tx, personKey(person), TEAM_DETAILS[key]!);
      }
      await promiseAnswers(services, tx);
      await prepareLife(services, tx);
      for (const { name, theme } of THEMES) await services.themes.add(tx, name, theme);
      const survey = await addForm(services, tx, 'survey', 'Site survey request', SURVEY_FORM);
      const pricelist = await addForm(services, tx, 'pricelist', 'Glazing price list', PRICELIST_FORM);
      const grant = await addForm(services, tx, 'grant', 'School garden grant', GRANT_FORM);
      const cancel = await addForm(services, tx, 'cancel', 'Care plan cancellation', CANCEL_FORM);
      const dealers = await services.intakes.add(tx, { key: 'dealers', kind: 'endpoint', name: 'Dealer application' });
      const calls = await addForm(services, tx, 'calls', 'Partner call log', CALLS_FORM);
      await services.intakes.change(tx, calls.id, { forColleagues: true });
      await addChannels(services, tx);
      await runCampaigns(services, tx, now);
      for (const set of VALUE_SETS) await services.valueSets.add(tx, set);
      for (const route of [SURVEY_ROUTE, PRICELIST_ROUTE, DEALERS_ROUTE, CALLS_ROUTE, CANCEL_ROUTE, GRANT_ROUTE])
        await publish(services, tx, route);
      return {
        workspaceId: tx.workspaceId,
        intakes: {
          survey: survey.id,
          pricelist: pricelist.id,
          dealers: dealers.id,
          calls: calls.id,
          cancel: cancel.id,
          grant: grant.id,
        },
        staff: {
          ids: new Map([...people].map(([name, id]) => [personKey(name), id])),
          team: (key: string) => TEAMS.find((team) => team.key === key)!.people.map(personKey),
        },
        mover: people.get('Idris Vale')!,
      };
    },
  );
  const random = new Random(20_260_314);
  const year = [
    ...withEarlierVisits(new Random(733), madeUpYear(random, now)),
    ...plantedArrivals(now),
    ...madeUpCancellations(new Random(91), now),
    ...madeUpGrants(new Random(37), now),
  ].sort((a, b) => a.at.getTime() - b.at.getTime());
  const answering = new Random(58);
  const ofForms = year.filter(({ intake }) => intake === 'survey' || intake === 'pricelist');
  await countVisitors(
    services,
    workspaceId,
    new Random(412),
    ofForms.map(({ intake, at, visit }) => ({ intakeId: intakes[intake as keyof typeof intakes], intake, at, visit })),
    await services.database.inWorkspace(workspaceId, (tx) => services.destinations.load(tx)),
  );
  for (let from = now.getTime() - 13 * MONTH; from < now.getTime(); from += MONTH) {
    if (from + MONTH >= now.getTime()) await sendSinceAMonth(services, workspaceId);
    const month = year.filter(({ at }) => at.getTime() >= from && at.getTime() < from + MONTH);
    await keep(services, workspaceId, intakes, month);
    await services.router.drain();
    await answerGrants(services, workspaceId, new Date(now.getTime() - DAY));
    await answerEnquiries(services, workspaceId, answering, { until: new Date(from + MONTH), now });
    await doTasks(services, workspaceId, new Date(Math.min(from + MONTH, now.getTime())));
    await liveAMonth(services, workspaceId, random, {
      from: new Date(from),
      to: new Date(Math.min(from + MONTH, now.getTime())),
      staff,
    });
    await moveDeals(services, workspaceId, random, {
      from: new Date(from),
      to: new Date(Math.min(from + MONTH, now.getTime())),
      by: mover,
    });
  }
  // No mail of the year is sent: visitors are written to from now on.
  await publishAgain(services, workspaceId, [
    [CANCEL_ROUTE_WRITING, 'Whoever leaves hears from us'],
    [PRICELIST_ROUTE_CONFIRMING, 'Whoever lets us write confirms the address first'],
    [GRANT_ROUTE_BY_MAIL, 'Morag is asked by mail too'],
    [SURVEY_ROUTE_TELLING, 'Robin hears of a large survey at once'],
  ]);
  await bringInShow(services, { workspaceId, now, by: mover });
  await beginDealerDraft(services, workspaceId);
  await leaveTheLatest(services, workspaceId, now);
}

/** A form at the readable key and address that only the demo has, published. */
async function addForm(services: Services, tx: Tx, key: string, name: string, form: FormDefinition) {
  const intake = await services.forms.add(tx, name, form, { key, slug: key });
  await services.forms.publish(tx, key, 'Robin Nye', {});
  return intake;
}

async function seedMarram(services: Services, now: Date): Promise<void> {
  const { workspaceId, intakeId } = await services.workspaces.add(
    {
      key: 'marram',
      name: 'Marram Boat Sheds',
      defaultCountry: 'GB',
      defaultCurrency: 'GBP',
      pipelines: [MARRAM.pipeline],
    },
    async (tx) => {
      await services.people.add(tx, { name: 'Wenna Sark', email: 'wenna@marram.example', password: PASSWORD });
      const { id } = await addForm(services, tx, 'sheds', 'Shed enquiry', MARRAM.form);
      await publish(services, tx, MARRAM.route);
      return { workspaceId: tx.workspaceId, intakeId: id };
    },
  );
  const random = new Random(7);
  const boats = ['Skerry', 'Puffin', 'Old Nan', 'Second Wind', 'Kittiwake'];
  const arrivals = Array.from({ length: 40 }, (_, index) => ({
    workspaceId,
    intakeId,
    receivedAt: new Date(now.getTime() - (40 - index) * 3 * 86_400_000 - random.between(0, 80_000_000)),
    format: 'json' as const,
    body: Buffer.from(
      JSON.stringify({
        name: `Sailor ${index + 1}`,
        email: `sailor${index + 1}@example.net`,
        boat: random.pick(boats),
      }),
    ),
    visit: { page: 'https://marram.example/' },
  }));
  await services.inbox.keepAll(arrivals);
  await services.router.drain();
}

async function publish(services: Services, tx: Tx, definition: RouteDefinition): Promise<void> {
  const { id } = await services.routes.add(tx, definition);
  await services.routes.publish(tx, id, 'Robin Nye', 'First version');
}

async function keep(
  services: Services,
  workspaceId: string,
  intakes: Record<MadeUp['intake'], string>,
  arrivals: readonly MadeUp[],
): Promise<void> {
  if (!arrivals.length) return;
  await services.inbox.keepAll(
    arrivals.map(({ intake, at, payload, visit, origin }) => ({
      workspaceId,
      intakeId: intakes[intake],
      receivedAt: at,
      format: 'json',
      body: Buffer.from(JSON.stringify(payload)),
      visit,
      ...(origin ? { origin } : {}),
    })),
  );
}

/** Lets a month pass in the pipelines: deals go on, stay, are won or lost, by the same service that people use. */
async function moveDeals(
  services: Services,
  workspaceId: string,
  random: Random,
  month: { from: Date; to: Date; by: string },
): Promise<void> {
  await services.database.inWorkspace(workspaceId, async (tx) => {
    const open = await tx.statement<{ id: string; pipeline: string; stage: string; stage_since: Date }>(
      'demo_open_deals',
      `select id, pipeline, stage, stage_since from deal where workspace_id = $1 and status = 'open' order by number`,
      [workspaceId],
    );
    const ofCare = new Random(month.from.getTime() % 1_000_003);
    const moves = open.flatMap((deal) => {
      const pipeline = PIPELINES.find(({ key }) => key === deal.pipeline)!;
      const dice = deal.pipeline === 'care-plans' ? ofCare : random;
      const stage = nextStage(dice, pipeline, deal.stage);
      if (!stage) return [];
      const start = Math.max(month.from.getTime(), deal.stage_since.getTime());
      const at = new Date(start + dice.next() * (month.to.getTime() - start)).toISOString();
      const lost = pipeline.stages.some(({ key, state }) => key === stage && state === 'lost');
      const reason = lost ? dice.pick(['Too dear', 'Chose another firm', 'No answer', 'Not now']) : undefined;
      return [{ id: deal.id, stage, reason, at }];
    });
    if (moves.length) await services.deals.moveEach(tx, 'deal', moves, { kind: 'person', id: month.by });
  });
}

/** The year was routed in one go; its runs are dated as if each had been done on arrival, each taking as long as it took. */
async function dateRunsOnArrival(services: Services, workspaceId: string): Promise<void> {
  await services.database.inWorkspace(workspaceId, (tx) =>
    tx.statement(
      'demo_date_runs',
      `update run r set started_at = s.received_at + interval '20 milliseconds', finished_at = s.received_at + interval '20 milliseconds' + (r.finished_at - r.started_at)
       from submission s where s.workspace_id = r.workspace_id and s.id = r.submission_id and r.workspace_id = $1`,
      [workspaceId],
    ),
  );
}

function nextStage(random: Random, pipeline: Pipeline, stage: string): string | null {
  const position = pipeline.stages.findIndex(({ key }) => key === stage);
  const roll = random.next();
  if (roll < 0.16) return pipeline.stages.find(({ state }) => state === 'lost')!.key;
  if (roll < 0.62) return pipeline.stages[position + 1]!.key;
  return null;
}

function address(name: string, domain: string): string {
  return `${name.toLowerCase().replace(/ /g, '.')}@${domain}`;
}

await seed();
