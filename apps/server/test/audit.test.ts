import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { PERMISSIONS, type AuditLine, type Page, type SetUpChange, type SheetShape } from '@haycart/api';
import { PLAIN_THEME, type JsonValue } from '@haycart/core';
import { startMailStandIn } from './support/mail-stand-in';
import { routeFrom } from './support/routes';
import { FORM, newDatabase, TestServer, TestWorkspace, until } from './support/test-server';

type Json = Record<string, any>; // eslint-disable-line @typescript-eslint/no-explicit-any -- Answers of every call there is.
interface Operation {
  method: string;
  path: string;
  command: string | undefined;
  permission: string | undefined;
  asks: boolean;
}

let server: TestServer;
let workspace: TestWorkspace;
let person: TestWorkspace['call'];
let operations: Operation[];
const done = new Set<string>();

beforeAll(async () => {
  server = await TestServer.start(await newDatabase(), { demo: true });
  workspace = await TestWorkspace.make(server);
  person = await workspace.signIn();
  const document = (await (await fetch(`${server.base}/api/openapi.json`)).json()) as { paths: Json };
  operations = Object.entries(document.paths).flatMap(([path, methods]) =>
    Object.entries(methods as Record<string, Json>)
      .filter(([method]) => method !== 'get')
      .map(([method, operation]) => ({
        method,
        path,
        command: operation['x-command'] as string | undefined,
        permission: operation['x-permission'] as string | undefined,
        asks: operation['x-changes-nothing'] === true,
      })),
  );
});
afterAll(() => server.stop());

const latest = async (from = workspace) => (await from.get<Page<AuditLine>>('/audit?limit=1')).items[0];

/** Does what a command does, and sees that its line is the latest. */
async function does(command: string, method: string, path: string, body?: unknown): Promise<Json> {
  const answer = await person<Json>(method, path, body);
  if (answer.status >= 300)
    throw new Error(`${command}: ${method} ${path} answered ${answer.status}: ${JSON.stringify(answer.body)}`);
  const line = await latest();
  expect([command, line]).toEqual([
    command,
    expect.objectContaining({ command, actor: expect.objectContaining({ name: 'Robin Nye' }) }),
  ]);
  done.add(command);
  return answer.body;
}

async function brings(command: string, path: string, name: string, text: BlobPart, method = 'POST'): Promise<Json> {
  const { status, body } = await workspace.attach<Json>(path, name, text, method);
  expect([command, status]).toEqual([command, method === 'POST' ? 201 : 200]);
  expect(await latest()).toMatchObject({ command, actor: { kind: 'token', name: 'test' } });
  done.add(command);
  return body;
}

describe('every call that changes something', () => {
  test('is a command with a permission, or says that it changes nothing', () => {
    const unmarked = operations.filter(({ command, asks }) => (command === undefined) === !asks);
    expect(unmarked.map(({ method, path }) => `${method} ${path}`)).toEqual([]);
    for (const { permission } of operations.filter(({ asks }) => !asks)) expect(PERMISSIONS).toContain(permission);
  });

  test('of records leaves a line', async () => {
    const make = async (full_name: string) =>
      (await does('records.add', 'POST', '/contacts', { values: { full_name } })).id as string;
    expect(await make('Dot Weir')).toBe((await latest())!.subject);
    const [ada, bo, cleo] = [await make('Ada Weir'), await make('Bo Weir'), await make('Cleo Weir')];
    const changed = await does('records.change', 'PATCH', `/contacts/${ada}`, {
      values: { job_title: 'Head gardener' },
    });
    await does('records.take-back', 'POST', `/edits/${changed.edit}/take-back`);
    const values = { job_title: 'Gardener' };
    await does('records.change-many', 'POST', '/contacts/edit', { ids: [ada, bo], edit: { values } });
    const firm = (await does('records.add', 'POST', '/companies', { values: { name: 'Weir' } })).id as string;
    await does('records.link', 'POST', `/contacts/${ada}/links`, { add: [firm] });
    await does('records.delete', 'DELETE', `/contacts/${cleo}`);
    const removed = await does('records.delete-many', 'POST', '/contacts/delete', { ids: [bo] });
    expect((await latest())!.text).toBe(removed.text);
    await does('records.bring-back', 'POST', '/deleted-records/bring-back', { ids: [bo, cleo] });

    const at = `/contacts/${ada}`;
    const note = await does('records.add-note', 'POST', `${at}/notes`, { text: 'Called.' });
    expect((await latest())!.text).toBe('Wrote a note');
    await does('records.change-note', 'PATCH', `${at}/notes/${note.id}`, { text: 'Called twice.' });
    const task = await does('records.add-task', 'POST', `${at}/tasks`, { text: 'Call again' });
    await does('records.change-task', 'PATCH', `${at}/tasks/${task.id}`, { done: true });
    await does('records.finish-tasks', 'POST', '/tasks/done', { ids: [task.id], done: true });
    await does('records.remove-activity', 'DELETE', `${at}/notes/${note.id}`);
    await brings('records.add-file', `${at}/files`, 'plan.txt', 'a plan');
    const consent = { channel: 'email', state: 'given', words: 'You may write to me', place: 'by phone' };
    await does('records.add-consent', 'POST', `${at}/consents`, consent);

    const deal = (
      await does('records.add', 'POST', '/deals', {
        values: { name: 'Glass' },
        pipeline: 'new-builds',
        stage: 'enquiry',
      })
    ).id as string;
    await does('records.move-deal', 'POST', `/deals/${deal}/move`, { stage: 'design' });
    const stages = [
      { name: 'Called', state: 'open' },
      ...['open', 'won', 'lost'].map((state) => ({ name: state, state })),
    ];
    await does('set-up.add-pipeline', 'POST', '/pipelines', { name: 'Enquiries', record: 'lead', stages });
    const lead = async (name: string) =>
      (await does('records.add', 'POST', '/leads', { values: { name } })).id as string;
    const [first, second] = [await lead('Dee'), await lead('Eda')];
    await does('records.qualify-lead', 'POST', `/leads/${first}/qualify`, { pipeline: 'new-builds', stage: 'design' });
    await does('records.set-lead-aside', 'POST', `/leads/${second}/set-aside`, { reason: 'No budget' });
    await does('records.reopen-lead', 'POST', `/leads/${second}/reopen`);
    await does('records.move-lead', 'POST', `/leads/${second}/move`, { stage: 'called' });

    const view = { columns: [{ field: 'email' }] };
    const kept = await does('records.add-view', 'POST', '/views', {
      record: 'contact',
      name: 'All',
      view,
      shared: true,
    });
    await does('records.change-view', 'PATCH', `/views/${kept.id}`, { name: 'Everybody' });
    await does('records.remove-view', 'DELETE', `/views/${kept.id}`);

    const merge = await does('identity.merge', 'POST', '/merges', { kind: 'contact', ids: [ada, bo] });
    const [{ id: merged }] = (await workspace.get<Json[]>(`/merges?record=${ada}`)) as [Json];
    expect(merge).toBeDefined();
    await does('identity.undo-merge', 'POST', `/merges/${merged}/undo`);
    await does('identity.change-settings', 'PUT', '/identity/settings', { thresholds: { accept: 0.9, ask: 0.5 } });
    const scan = await does('identity.scan', 'POST', '/scans', { kind: 'contact' });
    await does('identity.cancel-scan', 'POST', `/scans/${scan.id}/cancel`);
    await does('identity.accept', 'POST', '/look-alikes/accept', { kind: 'contact', least: 0.99 });
  });

  test('of what is set up leaves a line', async () => {
    for (const [what, one] of [
      ['tags', 'Press'],
      ['lists', 'Readers'],
    ] as const) {
      const { key } = await does('set-up.add-label', 'POST', `/${what}`, { name: one });
      const { key: other } = await does('set-up.add-label', 'POST', `/${what}`, { name: `${one} too` });
      await does('set-up.change-label', 'PATCH', `/${what}/${key}`, { name: `${one} all` });
      await does('set-up.merge-labels', 'POST', `/${what}/${other}/merge`, { into: key });
      await does('set-up.remove-label', 'DELETE', `/${what}/${key}`);
    }
    await does('set-up.add-field', 'POST', '/fields', { record: 'contact', label: 'Shoe size', type: 'text' });
    const [field] = (await workspace.get<Json[]>('/fields')).filter(({ label }) => label === 'Shoe size') as [Json];
    const at = `/fields/contact/${field.key}`;
    await does('set-up.change-field', 'PATCH', at, { label: 'Boot size' });
    await does('set-up.change-field-type', 'POST', `${at}/type`, { type: 'long-text' });
    const { field: moved } = (await does('set-up.move-field', 'POST', `${at}/move`, { to: 'company' })) as {
      field: Json;
    };
    await does('set-up.remove-field', 'DELETE', `/fields/${moved.record}/${moved.key}`);

    const pipeline = await does('set-up.add-pipeline', 'POST', '/pipelines', { name: 'Care', record: 'deal' });
    const ids = (await workspace.get<Json[]>('/pipelines')).map(({ id }) => id as string);
    await does('set-up.order-pipelines', 'POST', '/pipelines/order', { ids: ids.reverse() });
    await does('set-up.change-pipeline', 'PATCH', `/pipelines/${pipeline.id}`, { name: 'Upkeep' });
    await does('set-up.add-stage', 'POST', `/pipelines/${pipeline.id}/stages`, { name: 'Visit' });
    await does('set-up.change-stage', 'PATCH', `/pipelines/${pipeline.id}/stages/visit`, { name: 'Visited' });
    const gone = (await does(
      'set-up.remove-stage',
      'DELETE',
      `/pipelines/${pipeline.id}/stages/visit`,
    )) as unknown as SetUpChange;
    await does('set-up.take-back', 'POST', `/set-up/changes/${gone.id}/take-back`);
    await does('set-up.remove-pipeline', 'DELETE', `/pipelines/${pipeline.id}`);
    await does('set-up.change-workspace', 'PATCH', '/workspace', { name: 'Quillfern' });
    const rates = [{ currency: 'EUR', from: '2026-01-01', rate: '0.85' }];
    const campaign = { name: 'Spring', code: 'spring', source: 'a', medium: 'b' };
    await does('set-up.add-campaign', 'POST', '/campaigns', campaign);
    await does('set-up.change-campaign', 'PATCH', '/campaigns/spring', { name: 'Spring list' });
    const page = { page: 'https://q.example', parameters: {} };
    const [link] = (await does('set-up.make-links', 'POST', '/campaigns/spring/links', {
      links: [page],
    })) as unknown as Json[];
    await does('set-up.remove-link', 'DELETE', `/campaigns/spring/links/${link!.id as string}`);
    const cost = { campaign: 'spring', from: '2026-03-01', to: '2026-03-01', amount: 1, currency: 'GBP' };
    await does('set-up.keep-costs', 'POST', '/campaign-costs', { costs: [cost] });
    await does('set-up.remove-costs', 'DELETE', '/campaigns/spring/costs?from=2026-03-01&to=2026-03-01');
    await does('set-up.link-rules', 'PUT', '/link-rules', { required: [], lowerCase: true, space: '-', words: {} });
    await does('set-up.remove-campaign', 'DELETE', '/campaigns/spring');
    await does('set-up.replace-rates', 'PUT', '/exchange-rates', { rates });

    const invited = await does('people.add', 'POST', '/people', {
      name: 'Ida Marsh',
      email: `ida-${workspace.key}@quillfern.example`,
    });
    expect(JSON.stringify(await latest())).not.toContain(
      (invited.link as { address: string }).address.split('/').pop(),
    );
    await does('people.make-link', 'POST', `/people/${invited.key}/link`);
    await does('people.change', 'PATCH', `/people/${invited.key}`, { active: false });
    const team = await does('people.add-team', 'POST', '/teams', { name: 'Builds', people: ['robin-nye'] });
    await does('people.change-team', 'PATCH', `/teams/${team.key}`, { name: 'Builders' });
    await does('people.hand-over', 'POST', '/people/robin-nye/hand-over', { team: team.key });
    await does('people.remove-team', 'DELETE', `/teams/${team.key}`);
  });

  test('of intakes and forms leaves a line', async () => {
    const intake = await does('intakes.add', 'POST', '/intakes', { kind: 'endpoint', name: 'More' });
    await does('intakes.change', 'PATCH', `/intakes/${intake.id}`, { name: 'Yet more' });
    await workspace.submit({ f7: 'x' });
    await workspace.handled();
    await does('intakes.name-fields', 'PUT', `/intakes/${workspace.endpoint}/profile/names`, {
      names: { f7: 'Seven' },
    });

    const form = await does('forms.add', 'POST', '/forms', { name: 'Short', form: FORM });
    const at = `/forms/${form.key}`;
    await does('forms.publish', 'POST', `${at}/publish`, {});
    const { revision, draft } = await workspace.get<Json>(at);
    await does('forms.save-draft', 'PUT', `${at}/draft`, { form: { ...(draft as object), title: 'Longer' }, revision });
    await does('forms.publish', 'POST', `${at}/publish`, { share: 0.5 });
    await does('forms.end-trial', 'POST', `${at}/trial/end`, { keep: 2 });
    await does('forms.restore', 'POST', `${at}/versions/1/restore`);
    expect((await latest())!.subject).toBe(form.key);
    const theme = await does('forms.add-theme', 'POST', '/themes', { name: 'Plain', theme: PLAIN_THEME });
    await does('forms.change-theme', 'PUT', `/themes/${theme.key}`, { theme: PLAIN_THEME });
    await brings('forms.add-picture', '/form-pictures', 'mark.png', new Uint8Array([0x89, 0x50, 0x4e, 0x47]));
    await does('forms.make-entry-link', 'POST', `${at}/entry-link`);
    await does('forms.renew-entry-link', 'POST', `${at}/entry-link/renew`);
    await does('forms.add-domain', 'POST', '/form-domains', { host: 'forms.weir.example' });
    await does('forms.check-domain', 'POST', '/form-domains/forms.weir.example/check');
    await does('forms.remove-domain', 'DELETE', '/form-domains/forms.weir.example');
  });

  test('of routes and submissions leaves a line', async () => {
    const definition = routeFrom(workspace.endpoint);
    const { id, draft } = await does('routes.add', 'POST', '/routes', { definition });
    await does('routes.save-draft', 'PUT', `/routes/${id}/draft`, draft);
    await does('routes.publish', 'POST', `/routes/${id}/publish`, {});
    await does('routes.pause', 'POST', `/routes/${id}/pause`);
    const held = await workspace.submit({ name: 'Ada', email: 'ada@weir.example' });
    await workspace.handled();
    await does('submissions.run-all-again', 'POST', `/submissions/${held}/run-again`);
    await workspace.handled();
    await does('submissions.run-many-again', 'POST', '/submissions/run-again', { ids: [held] });
    await does('routes.resume', 'POST', `/routes/${id}/resume`, { waiting: 'route' });
    await workspace.handled();
    const period = { since: '2020-01-01T00:00:00Z', before: '2030-01-01T00:00:00Z' };
    await does('routes.catch-up', 'POST', `/routes/${id}/catch-up`, period);
    await workspace.handled();
    await does('set-up.channel-rules', 'PUT', '/channel-rules', { rules: [{ when: {}, channel: 'all' }], names: [] });
    const { change } = (await does('set-up.apply-channel-rules', 'POST', '/source-changes')) as { change: Json };
    await does('set-up.take-back-source-change', 'POST', `/source-changes/${change.id as string}/take-back`);
    const [touched] = await workspace.query<{ id: string }>('select id from visit limit 1');
    const said = { visits: [touched!.id], channel: 'fair', source: 'Stand' };
    await does('records.correct-source', 'POST', '/source-changes/corrections', said);
    const view = { name: 'All', query: { period: 'last-week' } };
    const mailed = await does('records.add-report-mail', 'POST', '/report-mails', view);
    await does('records.send-report-mail', 'POST', `/report-mails/${mailed.id}/send`);
    await does('records.remove-report-mail', 'DELETE', `/report-mails/${mailed.id}`);
    const comparison = await does('routes.compare', 'POST', `/routes/${id}/comparisons`, {});
    await does('routes.cancel-comparison', 'POST', `/routes/${id}/comparisons/${comparison.id}/cancel`);
    const sample = { name: 'A case', payload: { email: 'ada@weir.example' } };
    const { id: one } = await does('routes.add-case', 'POST', `/routes/${id}/cases`, sample);
    await does('routes.agree-case', 'POST', `/routes/${id}/cases/${one}/agree`);
    await does('routes.remove-case', 'DELETE', `/routes/${id}/cases/${one}`);
    const { runs } = await workspace.get<{ runs: { id: string }[] }>(`/submissions/${held}`);
    await does('set-up.add-value-set', 'POST', '/value-sets', { name: 'North', values: ['Leeds'] });
    await does('set-up.change-value-set', 'PATCH', '/value-sets/north', { values: ['York'] });
    await does('set-up.import-value-sets', 'POST', '/value-sets/import', { sets: [{ name: 'North', values: [] }] });
    await does('set-up.remove-value-set', 'DELETE', '/value-sets/north');
    await does('channels.add', 'POST', '/channels', { name: 'Care desk', by: 'chat', address: server.base });
    await does('channels.change', 'PATCH', '/channels/care-desk', {
      address: `${server.base}/in/${workspace.endpoint}`,
    });
    await does('channels.test', 'POST', '/channels/care-desk/test');
    await does('channels.remove', 'DELETE', '/channels/care-desk');
    await does('channels.set-text-gateway', 'PUT', '/text-gateway', { address: 'https://texts.example' });
    const mail = { subject: 'Hello', text: 'Hello.' };
    await does('mail.add-template', 'POST', '/mail-templates', { name: 'Hello', ...mail });
    await does('mail.change-template', 'PATCH', '/mail-templates/hello', { subject: 'Hello again' });
    await does('mail.remove-template', 'DELETE', '/mail-templates/hello');
    const file = await brings('mail.add-file', '/mail-files', 'prices.txt', 'a price');
    await brings('mail.replace-file', `/mail-files/${file.key}`, 'prices.txt', 'another', 'PUT');
    await does('mail.remove-file', 'DELETE', `/mail-files/${file.key}`);
    const standIn = await startMailStandIn();
    const { port } = standIn;
    const from = { fromName: 'Weir', fromAddress: 'hello@weir.example' };
    await does('mail.set-server', 'PUT', '/mail-server', { host: '127.0.0.1', port, security: 'none', ...from });
    await does('mail.test', 'POST', '/mail-server/test', mail);
    standIn.stop();
    await person('POST', '/teams', { name: 'Care', people: ['robin-nye'] });
    await does('mail.set-sender', 'PUT', '/mail-server/senders/care', from);
    await does('mail.remove-sender', 'DELETE', '/mail-server/senders/care');
    await does('mail.remove-server', 'DELETE', '/mail-server');
    await does('outbox.replace-secret', 'POST', '/outbox-signing/replace');
    const [item] = await workspace.query<{ id: string }>(
      `insert into outbox (workspace_id, id, submission_id, run_id, attempt_id, route_id, kind, target, key, body, due_at)
       select workspace_id, id, submission_id, id, attempt_id, route_id, 'post', 'http://127.0.0.1:1', 'a key', '{}', '2100-01-01' from run limit 1 returning id`,
    );
    await does('outbox.cancel', 'POST', `/outbox/${item!.id}/cancel`);
    await does('outbox.retry', 'POST', `/outbox/${item!.id}/retry`);
    await does('submissions.take-back', 'POST', '/runs/take-back', { runs: [runs[0]!.id] });
    await does('submissions.run-again', 'POST', `/runs/${runs[0]!.id}/run-again`);

    const refused = routeFrom(workspace.endpoint);
    refused.writes[1]!.fills[0]!.ifEmpty = 'fail';
    await does(
      'routes.publish',
      'POST',
      `/routes/${(await does('routes.add', 'POST', '/routes', { definition: refused })).id}/publish`,
      {},
    );
    await workspace.submit({ email: 'nameless@weir.example' });
    const [waiting] = (await until(
      async () => (await workspace.get<{ items: Json[] }>('/decisions')).items,
      (lines) => lines.some(({ kind }) => kind === 'failed'),
    )) as [Json];
    await does('decisions.decide', 'POST', '/decisions/decide', { ids: [waiting.id], action: 'leave' });
  });

  test('of files leaves a line', async () => {
    const read = (intake: string) =>
      until(
        () => workspace.get<SheetShape>(`/sheets/${intake}`),
        ({ files }) => files.every(({ state }) => state !== 'reading'),
      );
    const { intake, file } = await brings('sheets.bring-in', '/sheets', 'people.csv', 'email\nada@weir.example\n');
    const { key } = intake as { key: string };
    await workspace.publish(routeFrom(key));
    await read(key);
    await workspace.call('POST', '/submissions/run-again', { filter: { intake: key } });
    await workspace.handled();
    await does('sheets.take-back', 'POST', `/sheets/files/${file}/take-back`);
    const other = await brings(
      'sheets.bring-in',
      '/sheets',
      'others.csv',
      `E-mail\n${'bo@weir.example\n'.repeat(5_000)}`,
    );
    await does('sheets.cancel', 'POST', `/sheets/files/${other.file}/cancel`);
  });

  test('of one’s own account leaves a line', async () => {
    const token = await does('account.make-token', 'POST', '/tokens', { name: 'A script', scope: 'read', days: 1 });
    expect(JSON.stringify(await latest())).not.toContain(token.secret);
    await does('account.revoke-token', 'DELETE', `/tokens/${token.id}`);
    await workspace.signIn();
    expect(await latest()).toMatchObject({ command: 'account.sign-in' });
    done.add('account.sign-in');
    const sessions = await person<Json[]>('GET', '/account/sessions');
    await does(
      'account.end-session',
      'DELETE',
      `/account/sessions/${sessions.body.find(({ current }) => !current)!.id}`,
    );
    await does('account.end-other-sessions', 'DELETE', '/account/sessions');
    await does('account.change-password', 'PUT', '/account/password', {
      old: 'a long password',
      password: 'another long one 7',
    });
    const { address } = await does('people.make-link', 'POST', '/people/robin-nye/link');
    const secret = (address as string).split('/').pop()!;
    const open = async (command: string, path: string, body: JsonValue) => {
      expect([command, (await server.postJson(`/api/v1/session${path}`, body)).status]).toEqual([command, 204]);
      expect(await latest()).toMatchObject({ command, actor: { kind: 'person', name: 'Robin Nye' } });
      done.add(command);
    };
    await open('account.set-password', `/link/${secret}`, { password: 'a long password' });
    await open('account.sign-in-to-demo', '/demo', { email: `${workspace.key}@quillfern.example` });
    person = await workspace.signIn();
    await does('account.sign-out', 'DELETE', '/session');
  });

  test('was done here, but for the first workspace of a server and for what a workbook alone has', () => {
    const commands = new Set(operations.flatMap(({ command }) => command ?? []));
    const elsewhere = ['account.make-workspace', 'sheets.bring-worksheets'];
    expect([...commands].filter((command) => !done.has(command)).sort()).toEqual(elsewhere);
  });
});

describe('the audit', () => {
  let own: TestWorkspace;
  let robin: TestWorkspace['call'];
  const lines = async (query = '') => (await own.get<Page<AuditLine>>(`/audit${query}`)).items;
  const commands = async (query = '') => (await lines(query)).map(({ command }) => command);

  beforeEach(async () => {
    own = await TestWorkspace.make(server);
    robin = await own.signIn();
  });

  test('has no line of what was refused, and shows none to another workspace', async () => {
    expect((await robin('POST', '/teams', { name: '' })).status).toBe(422);
    expect((await robin('DELETE', '/teams/nothing')).status).toBe(404);
    expect((await robin('POST', '/routes/nothing/publish', {})).status).toBe(404);
    expect(await commands()).toEqual(['account.sign-in']);
    const other = await TestWorkspace.make(server);
    expect((await other.get<Page<AuditLine>>('/audit')).items).toEqual([]);
  });

  test('has one line for as long as somebody goes on with a draft', async () => {
    const { id, draft } = (await robin<Json>('POST', '/routes', { definition: routeFrom(own.endpoint) })).body;
    for (const name of ['One', 'Two', 'Three'])
      expect((await robin('PUT', `/routes/${id}/draft`, { ...(draft as object), name })).status).toBe(200);
    await own.call('PUT', `/routes/${id}/draft`, draft);
    expect((await lines(`?subject=${id}`)).map(({ command, actor }) => [command, actor.name])).toEqual([
      ['routes.save-draft', 'test'],
      ['routes.save-draft', 'Robin Nye'],
      ['routes.add', 'Robin Nye'],
    ]);
  });

  test('is narrowed by who, what, on what and when, and read page by page', async () => {
    const [one] = await lines();
    await robin('POST', '/tags', { name: 'Press' });
    await robin('PATCH', '/tags/press', { name: 'The press' });
    await own.call('POST', '/tags', { name: 'By a script' });
    expect(await commands('?command=set-up.add-label')).toHaveLength(2);
    expect(await commands('?command=set-up')).toHaveLength(3);
    expect(await commands(`?actor=${one!.actor.id}&command=set-up`)).toEqual([
      'set-up.change-label',
      'set-up.add-label',
    ]);
    expect(await commands('?subject=press')).toEqual(['set-up.change-label', 'set-up.add-label']);
    expect(await commands(`?before=${one!.at}`)).toEqual([]);
    expect(await commands('?since=2100-01-01T00:00:00Z')).toEqual([]);
    expect(await commands('?command=nothing')).toEqual([]);
    const read: string[] = [];
    for (let after = ''; ;) {
      const { items, next } = await own.get<Page<AuditLine>>(`/audit?limit=3&after=${encodeURIComponent(after)}`);
      read.push(...items.map(({ id }) => id));
      if (!next) break;
      after = next;
    }
    expect(read).toEqual((await lines()).map(({ id }) => id));
    for (const query of ['?actor=robin', '?command=a%20b', '?since=yesterday', '?after=x', '?colour=red'])
      expect([query, (await own.call('GET', `/audit${query}`)).status]).toEqual([query, 422]);
  });

  test('goes out as a file, with what people write kept from being a formula', async () => {
    await robin('POST', '/tags', { name: '=1+1' });
    const file = async (format: string) => {
      const response = await fetch(`${server.base}/api/v1/audit/export?format=${format}&command=set-up`, {
        headers: { authorization: `Bearer ${own.token}` },
      });
      return [response.status, await response.text()] as const;
    };
    const [status, text] = await file('csv');
    expect([status, text.split('\n')[0]]).toEqual([200, expect.stringContaining('Who,What')]);
    expect(text).toContain('Robin Nye,Made a tag or a list: =1+1,set-up.add-label');
    expect(JSON.parse((await file('jsonl'))[1])).toMatchObject({ command: 'set-up.add-label' });
  });

  test('stays as it was written', async () => {
    await expect(own.query(`update audit set text = ''`)).rejects.toThrow(/permission denied/);
    await expect(own.query('delete from audit')).rejects.toThrow(/permission denied/);
  });
});
