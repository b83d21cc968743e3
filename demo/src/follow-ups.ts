import type { RouteDefinition } from '@haycart/core';
import type { Services } from '@haycart/server/seeding';
import { CANCEL_ROUTE_TELLING, LEAVING_TEMPLATE } from './quillfern/cancellation-route';
import { CONFIRM_TEMPLATE, PRICE_LIST_FILE, PRICE_LIST_TEMPLATE } from './quillfern/price-list';
import { dealersRouteDraft, dealersRoutePosting } from './quillfern/routes';
import type { Tx } from './tx';

/** A port of a stand-in, that many after the application’s. */
const portAfter = (by: number) => Number(process.env.HAYCART_PORT ?? 4600) + by;

/** A chat of the care desk, and what sends text messages: the stand-in on the fifth port. */
export async function addChannels(services: Services, tx: Tx): Promise<void> {
  const at = `http://messages.quillfern.example:${portAfter(5)}`;
  await services.channels.add(tx, { key: 'care-desk', name: 'Care desk', by: 'chat', address: `${at}/chat/care-desk` });
  await services.channels.setGateway(tx, `${at}/texts`);
  await services.teams.change(tx, 'robin-nye', { phone: '+447700900101' });
  await services.mailServers.set(tx, {
    host: 'mail.quillfern.example',
    port: portAfter(4),
    security: 'none',
    user: null,
    fromName: 'Quillfern Glasshouses',
    fromAddress: 'hello@quillfern.example',
    replyTo: null,
    returnDomain: 'returns.quillfern.example',
    perMinute: null,
  });
  await services.mailServers.setSender(tx, 'care-desk', {
    fromName: 'Quillfern Care desk',
    fromAddress: 'care@quillfern.example',
    replyTo: null,
  });
  const { key, name, ...content } = PRICE_LIST_FILE;
  const bytes = await services.pdfs.write(content, new Date(0));
  await services.mailFiles.add(tx, { key, name, type: 'application/pdf', bytes });
  for (const template of [LEAVING_TEMPLATE, CONFIRM_TEMPLATE, PRICE_LIST_TEMPLATE])
    await services.mailTemplates.add(tx, template);
}

/** Since a month ago the warehouse hears of each dealer, and the care desk’s chat of whoever leaves. */
export async function sendSinceAMonth(services: Services, workspaceId: string): Promise<void> {
  await publishAgain(services, workspaceId, [
    [dealersRoutePosting(portAfter(9)), 'The warehouse hears of each'],
    [CANCEL_ROUTE_TELLING, 'The care desk hears of each at once'],
  ]);
}

/** Somebody began to change who takes which dealer, and did not finish it. */
export async function beginDealerDraft(services: Services, workspaceId: string): Promise<void> {
  await services.database.inWorkspace(workspaceId, async (tx) => {
    const draft = dealersRouteDraft(portAfter(9));
    const { id } = (await services.routes.definitions(tx)).find(({ name }) => name === draft.name)!;
    await services.routes.saveDraft(tx, id, draft, 'Idris Vale');
  });
}

/** Publishes routes that are there as they are now. */
export async function publishAgain(
  services: Services,
  workspaceId: string,
  changed: readonly [RouteDefinition, string][],
): Promise<void> {
  await services.database.inWorkspace(workspaceId, async (tx) => {
    const routes = await services.routes.definitions(tx);
    for (const [definition, note] of changed) {
      const { id } = routes.find(({ name }) => name === definition.name)!;
      await services.routes.saveDraft(tx, id, definition, 'Robin Nye');
      await services.routes.publish(tx, id, 'Robin Nye', note);
    }
  });
}

/** Whoever is asked about grants answered what came before a moment: no to what is no school. */
export async function answerGrants(services: Services, workspaceId: string, before: Date): Promise<void> {
  await services.database.inWorkspace(workspaceId, async (tx) => {
    const rows = await tx.statement<{ submission: string; route: string; school: string }>(
      'demo_grants_waiting',
      `select r.submission_id as submission, r.route_id as route, convert_from(s.body, 'UTF8')::json ->> 'school' as school
       from run r join submission s on s.workspace_id = r.workspace_id and s.id = r.submission_id
       where r.workspace_id = $1 and r.outcome = 'held' and r.reason_code = 'approval' and s.received_at < $2`,
      [workspaceId, before],
    );
    if (!rows.length) return;
    const answers = rows.map(({ school, ...run }) => {
      const approved = !school.endsWith('Sheds');
      return { ...run, for: 'approval', hold: 0, approved, note: approved ? '' : 'Not a school', by: 'Morag Sel' };
    });
    await services.holdAnswers.give(tx, answers);
    await services.queue.runThrough(
      tx,
      rows.map(({ submission }) => submission),
      rows[0]!.route,
    );
  });
  await services.router.drain();
}

/** What was due a day before a moment was done, but for one in six. */
export async function doTasks(services: Services, workspaceId: string, until: Date): Promise<void> {
  await services.database.inWorkspace(workspaceId, async (tx) => {
    const rows = await tx.statement<{ id: string; person: string; until: Date }>(
      'demo_tasks_due',
      `select t.id, p.id as person, t.until from task t join person p on p.workspace_id = t.workspace_id and p.key = t.owner
       where t.workspace_id = $1 and t.attempt_id is not null and t.done_at is null and t.until < $2::timestamptz - interval '1 day' order by t.id`,
      [workspaceId, until],
    );
    for (const [index, { id, person, until: at }] of rows.entries())
      if (index % 6 !== 5) await services.tasks.finish(tx, [id], true, { kind: 'person', id: person }, at);
  });
}
