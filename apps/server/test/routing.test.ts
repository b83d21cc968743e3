import { afterAll, beforeAll, beforeEach, describe, expect, jest, test } from '@jest/globals';
import type {
  HistoryEntry,
  Page,
  PipelineGrid,
  ProblemBody,
  RecordShape,
  RecordSheet,
  Rehearsal,
  RouteShape,
  RunShape,
  SubmissionDetail,
  TouchShape,
} from '@haycart/api';
import pg from 'pg';
import { RecordsService } from '../src/records/records.service';
import { routeFrom } from './support/routes';
import { asOwner, newDatabase, TestServer, TestWorkspace, until } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;

beforeAll(async () => {
  server = await TestServer.start(await newDatabase());
});
afterAll(() => server.stop());
beforeEach(async () => {
  workspace = await TestWorkspace.make(server);
});

const routed = (id: string, runs = 1) =>
  until(
    () => workspace.get<SubmissionDetail>(`/submissions/${id}`),
    ({ state, runs: ended }) => state !== 'waiting' && ended.length >= runs,
  );
const records = async (kind: string, query = '') =>
  (await workspace.get<Page<RecordShape>>(`/${kind}?limit=200${query}`)).items;
const maren = {
  name: 'MAREN ODUYA',
  email: 'M.Oduya@Fennwick.example',
  phone: '07700 900318',
  company: 'Fennwick Academy',
  bays: '6',
};

describe('an enquiry', () => {
  test('becomes a contact, its company and a deal, with source and trace', async () => {
    await workspace.publish();
    const id = await workspace.submit({
      ...maren,
      _visit: { utm_source: 'spring-newsletter', utm_medium: 'email', page: 'https://q.example/schools' },
    });
    const { runs } = await routed(id);
    expect(runs[0]).toMatchObject({ outcome: 'written', summary: 'New company, new contact, new deal' });
    const [contact] = await records('contacts', '&email=m.oduya@fennwick.example');
    expect(contact).toMatchObject({
      number: 1,
      name: 'Maren Oduya',
      values: {
        email: 'm.oduya@fennwick.example',
        phone: '+447700900318',
        phones: ['+447700900318'],
        source: 'spring-newsletter',
      },
    });
    expect(contact!.links.company).toMatchObject([{ name: 'Fennwick Academy' }]);
    const [deal] = await records('deals');
    expect(deal!.values).toMatchObject({
      name: 'Glass for Maren Oduya',
      pipeline: 'new-builds',
      stage: 'enquiry',
      status: 'open',
      bays: 6,
      source: 'spring-newsletter',
    });
    expect(deal!.links).toMatchObject({ contacts: [{ id: contact!.id }], companies: [{ name: 'Fennwick Academy' }] });
    const history = await workspace.get<HistoryEntry[]>(`/contacts/${contact!.id}/history`);
    const name = history[0]!.values.find(({ field }) => field === 'full_name')!;
    expect(history[0]!.cause).toMatchObject({ kind: 'run', submission: id });
    expect(name.trace!.steps.map(({ after }) => after)).toEqual(['MAREN ODUYA', 'Maren Oduya']);
    expect(await workspace.get<TouchShape[]>(`/contacts/${contact!.id}/touches`)).toMatchObject([
      { source: 'spring-newsletter', channel: 'e-mail', page: 'https://q.example/schools' },
    ]);
    const run = await workspace.get<RunShape>(`/runs/${runs[0]!.id}`);
    expect(Object.keys(run.plan!.diff.created)).toHaveLength(3);
    expect(run.account.map(({ step }) => step)).toEqual(
      expect.arrayContaining(['arrived', 'created', 'value', 'placed', 'source']),
    );
  });

  test('of the same person again makes neither a second contact nor a second open deal', async () => {
    await workspace.publish();
    await routed(await workspace.submit(maren));
    await routed(await workspace.submit({ ...maren, bays: '8', _visit: { utm_source: 'show-stand' } }));
    expect(await records('contacts')).toHaveLength(1);
    const deals = await records('deals');
    expect(deals.map(({ values }) => values.bays)).toEqual([8]);
    expect(deals[0]!.values.source).toBe('direct');
    expect(await workspace.get<TouchShape[]>(`/deals/${deals[0]!.id}/touches`)).toHaveLength(2);
  });

  test('that changes nothing stands in the history of the records that it touched', async () => {
    await workspace.publish();
    const page = 'https://q.example/schools';
    const first = await workspace.submit(maren);
    await routed(first);
    const second = await workspace.submit({ ...maren, _visit: { page } });
    await routed(second);
    for (const kind of ['contacts', 'companies', 'deals']) {
      const [record] = await records(kind);
      const history = await workspace.get<HistoryEntry[]>(`/${kind}/${record!.id}/history`);
      expect(history).toMatchObject([
        {
          cause: { kind: 'run', submission: second, intake: 'Dealers', page },
          values: [],
          diff: { created: {}, changed: {} },
        },
        { cause: { kind: 'run', submission: first, intake: 'Dealers' } },
      ]);
      expect((await workspace.get<RecordSheet>(`/${kind}/${record!.id}/sheet`)).history).toEqual(history);
    }
  });

  test('of twenty at the same moment with one address makes one contact, on two servers', async () => {
    await workspace.publish();
    const second = await TestServer.start(server.databaseUrl);
    try {
      const ids = await Promise.all(
        Array.from({ length: 20 }, (_, n) =>
          (n % 2 ? server : second)
            .postJson(`/in/${workspace.endpoint}`, { ...maren, bays: String(n) })
            .then(async (response) => ((await response.json()) as { submissionId: string }).submissionId),
        ),
      );
      for (const id of ids) expect((await routed(id)).runs[0]!.outcome).toBe('written');
      expect(await records('contacts')).toHaveLength(1);
      expect(await records('companies')).toHaveLength(1);
      expect(await records('deals')).toHaveLength(1);
      expect(await workspace.get<TouchShape[]>(`/contacts/${(await records('contacts'))[0]!.id}/touches`)).toHaveLength(
        20,
      );
    } finally {
      await second.stop();
    }
  });

  test('is one contact also when they come in one batch', async () => {
    await workspace.publish();
    await server.postJson(
      `/in/${workspace.endpoint}`,
      Array.from({ length: 150 }, (_, n) => ({ ...maren, email: `p${n % 30}@fennwick.example` })),
    );
    await until(
      () => workspace.query<{ n: number }>('select count(*)::int as n from run'),
      ([row]) => row!.n === 150,
    );
    expect(await records('contacts')).toHaveLength(30);
    expect(await records('companies')).toHaveLength(1);
    const numbers = (await records('contacts')).map(({ number }) => number);
    expect(new Set(numbers).size).toBe(30);
  });

  test('of many people at once, in batches that look for the same names, is routed once each and loses nobody', async () => {
    const route = routeFrom(workspace.endpoint);
    const writes = route.writes.map((write) =>
      write.as === 'person'
        ? { ...write, match: [{ by: 'email' as const }, { by: 'likeness' as const, accept: 0.85, ask: 0.84 }] }
        : write,
    );
    await workspace.publish({ ...route, writes });
    const given = ['Ada', 'Bo', 'Carys', 'Dieter', 'Esme', 'Farid', 'Greta', 'Hugo', 'Ines', 'Jonas'];
    const family = ['Weir', 'Oduya', 'Thackeray', 'Lindqvist', 'Marchetti', 'Pritchard', 'Novak', 'Zeller', 'Quist'];
    const people = given.flatMap((first) =>
      family.map((last, n) => ({ name: `${first} ${last}`, email: `${first}.${last}@firm${n}.example`, company: '' })),
    );
    for (let turn = 0; turn < 6; turn++) await server.postJson(`/in/${workspace.endpoint}`, people);
    await until(
      () => workspace.query<{ n: number }>(`select count(*)::int as n from submission where state = 'routed'`),
      ([row]) => row!.n === people.length * 6,
    );
    expect(await workspace.query('select outcome, count(*)::int as n from run group by 1')).toEqual([
      { outcome: 'written', n: people.length * 6 },
    ]);
    expect((await records('contacts')).map(({ name }) => name).sort()).toEqual(people.map(({ name }) => name).sort());
  });

  test('in a batch whose planning fails, while what was planned is being written, is written once and by itself', async () => {
    await workspace.publish();
    const service = server.app.get(RecordsService);
    const load = service.lockAndLoad.bind(service);
    const write = service.write.bind(service);
    let failed = false;
    const refused: unknown[] = [];
    const loading = jest.spyOn(service, 'lockAndLoad').mockImplementation(async (...asked) => {
      const known = await load(...asked);
      const copy = known.copy.bind(known);
      // Once the first part is planned and under way to the database, nothing can be planned any more.
      known.copy = () => {
        if (!failed)
          known.withKey = () => {
            failed = true;
            throw new Error('Planning fails.');
          };
        return copy();
      };
      return known;
    });
    const writing = jest.spyOn(service, 'write').mockImplementation((...diffs) =>
      write(...diffs).catch((cause: unknown) => {
        refused.push(cause);
        throw cause;
      }),
    );
    // As many as two workers take at once, so that each of them plans more than one part.
    const people = Array.from({ length: 400 }, (_, n) => ({ name: `Person ${n}`, email: `p${n}@firm${n}.example` }));
    await server.postJson(`/in/${workspace.endpoint}`, people);
    await workspace.handled();
    loading.mockRestore();
    writing.mockRestore();
    expect(failed).toBe(true);
    // What was under way when planning failed was not sent to a transaction that was over.
    expect(refused).toEqual([]);
    expect(await workspace.query('select outcome, count(*)::int as n from run group by 1')).toEqual([
      { outcome: 'written', n: people.length },
    ]);
    const written = await workspace.query<{ name: string }>('select full_name as name from contact');
    expect(written.map(({ name }) => name).sort()).toEqual(people.map(({ name }) => name).sort());
    const [{ n }] = (await workspace.query<{ n: number }>(
      `select count(distinct record_id)::int as n from record_change where record_kind = 'contact'`,
    )) as [{ n: number }];
    expect(n).toBe(people.length);
  });

  test('from one mailbox written in two ways is written, and found by either', async () => {
    await workspace.publish();
    for (const email of ['m.oduya@gmail.com', 'mo.duya@gmail.com', 'm.oduya@gmail.com'])
      expect((await routed(await workspace.submit({ ...maren, email }))).runs[0]!.outcome).toBe('written');
    expect((await records('contacts')).map(({ values }) => new Set(values.emails as string[]))).toEqual([
      new Set(['m.oduya@gmail.com', 'mo.duya@gmail.com']),
    ]);
  });

  test('that no route takes is kept, and run when there is one', async () => {
    const id = await workspace.submit(maren);
    expect(
      (
        await until(
          () => workspace.get<SubmissionDetail>(`/submissions/${id}`),
          ({ state }) => state !== 'waiting',
        )
      ).runs,
    ).toEqual([]);
    await workspace.publish();
    await workspace.call('POST', `/submissions/${id}/run-again`);
    expect((await routed(id)).runs[0]!.outcome).toBe('written');
  });
});

describe('hostile values', () => {
  test('in any script are written as they are', async () => {
    await workspace.publish();
    const name = 'ليلى 🌱 \u202eנועה';
    const id = await workspace.submit({ ...maren, name, message: 'a\0b\ud800c', company: '=cmd|calc' });
    expect((await routed(id)).runs[0]!.outcome).toBe('written');
    const [contact] = await records('contacts');
    expect(contact!.values.full_name).toBe(name);
    expect((await records('companies'))[0]!.name).toBe('=cmd|calc');
    expect((await workspace.get<SubmissionDetail>(`/submissions/${id}`)).raw).toContain('\\u0000');
  });

  test('that are too long end in an account which says so, and are kept as they came', async () => {
    await workspace.publish();
    const email = `${'a'.repeat(288)}@weir.example`;
    const id = await workspace.submit({ name: 'Bo Weir', email });
    const { runs, payload } = await routed(id);
    expect(payload).toMatchObject({ email });
    const run = await workspace.get<RunShape>(`/runs/${runs[0]!.id}`);
    expect(run.account.map(({ text }) => text).join(' ')).toMatch(/e-mail address/);
    expect((await records('contacts')).map(({ values }) => values.email)).toEqual([undefined]);
  });
});

describe('a run that cannot succeed', () => {
  test('ends failed with a reason, does not block the others, and can be run again', async () => {
    await workspace.publish();
    const bad = await workspace.submit({ email: 'nobody' });
    const good = await workspace.submit(maren);
    expect((await routed(good)).runs[0]!.outcome).toBe('written');
    const { runs } = await routed(bad);
    expect(runs[0]).toMatchObject({
      outcome: 'failed',
      summary: expect.stringContaining('“nobody” is not an e-mail address'),
    });
    expect(runs[0]!.summary).toMatch(/\.$/);
  });

  test('says so for a body that cannot be read', async () => {
    await workspace.publish();
    const response = await server.post(`/in/${workspace.endpoint}`, Buffer.from([0x61, 0x3d, 0xe9]), {
      'content-type': 'application/x-www-form-urlencoded',
    });
    const { submissionId } = (await response.json()) as { submissionId: string };
    expect((await routed(submissionId)).runs[0]).toMatchObject({
      outcome: 'failed',
      summary: expect.stringContaining('UTF-8'),
    });
  });

  test('for a stage that is gone says which, and succeeds after the route is mended', async () => {
    const definition = routeFrom(workspace.endpoint);
    definition.writes[2]!.place!.stage = { parts: [{ text: 'design' }] };
    const route = await workspace.publish(definition);
    expect((await workspace.call('DELETE', '/pipelines/new-builds/stages/design')).status).toBe(200);
    const id = await workspace.submit(maren);
    expect((await routed(id)).runs[0]).toMatchObject({
      outcome: 'failed',
      summary: expect.stringContaining('“design”'),
    });
    expect(await records('contacts')).toEqual([]);
    const refused = await workspace.call<ProblemBody>('POST', `/routes/${route}/publish`, {});
    expect([refused.status, refused.body.errors?.[0]?.at]).toEqual([422, '/writes/2/place/stage']);
    await workspace.call('PUT', `/routes/${route}/draft`, routeFrom(workspace.endpoint));
    expect((await workspace.call('POST', `/routes/${route}/publish`, {})).body).toEqual({ version: 2 });
    await workspace.call('POST', `/submissions/${id}/run-again`);
    await until(
      () => workspace.get<SubmissionDetail>(`/submissions/${id}`),
      ({ runs }) => runs[0]?.outcome === 'written',
    );
    expect(await records('contacts')).toHaveLength(1);
  });

  test('because the database refuses its data is given up after some tries, while the rest of its batch is written', async () => {
    const admin = new pg.Client({ connectionString: asOwner(server.databaseUrl) });
    await admin.connect();
    await admin.query(
      `create function no_poison() returns trigger language plpgsql as $$ begin if new.full_name = 'Poison' then raise exception 'poison' using errcode = '22000'; end if; return new; end $$`,
    );
    await admin.query('create trigger no_poison before insert on contact for each row execute function no_poison()');
    try {
      await workspace.publish();
      const response = await server.postJson(`/in/${workspace.endpoint}`, [
        maren,
        { ...maren, name: 'Poison', email: 'poison@weir.example' },
      ]);
      const { submissionIds } = (await response.json()) as { submissionIds: string[] };
      expect((await routed(submissionIds[0]!)).runs[0]!.outcome).toBe('written');
      // The pauses between tries are not waited for here.
      await until(
        async () => {
          await admin.query('update submission set due_at = now() where tries > 0');
          return workspace.get<SubmissionDetail>(`/submissions/${submissionIds[1]}`);
        },
        ({ runs }) => runs[0]?.outcome === 'failed' && runs[0].summary.includes('several tries'),
      );
    } finally {
      await admin.query('drop function no_poison cascade');
      await admin.end();
    }
  });
});

describe('what can pass', () => {
  test('is tried again after pauses that grow, and written once it passes', async () => {
    const admin = new pg.Client({ connectionString: asOwner(server.databaseUrl) });
    await admin.connect();
    await admin.query(
      `create function disk_full() returns trigger language plpgsql as $$ begin raise exception 'full' using errcode = '53100'; end $$`,
    );
    await admin.query('create trigger disk_full before insert on contact for each row execute function disk_full()');
    await admin.query('create table pause_seen (tries int, pause float)');
    await admin.query(
      `create function see_pause() returns trigger language plpgsql security definer as $$ begin insert into pause_seen values (new.tries, extract(epoch from new.due_at - now())); return null; end $$`,
    );
    await admin.query(
      'create trigger see_pause after update on submission for each row when (new.tries > old.tries) execute function see_pause()',
    );
    try {
      await workspace.publish();
      const id = await workspace.submit(maren);
      // The pauses are not waited for here, only read.
      const { rows } = await until(
        async () => {
          await admin.query('update submission set due_at = now() where id = $1 and tries > 0', [id]);
          return admin.query<{ pause: number }>('select pause from pause_seen order by tries limit 4');
        },
        ({ rowCount }) => rowCount === 4,
      );
      expect(rows.map(({ pause }) => pause)).toEqual([1, 4, 15, 60]);
      await admin.query('drop function disk_full cascade');
      await admin.query('update submission set due_at = now() where id = $1', [id]);
      const { runs, tries } = await routed(id);
      expect([runs.map(({ outcome }) => outcome), tries]).toEqual([['written'], 0]);
    } finally {
      await admin.query('drop function if exists disk_full cascade');
      await admin.query('drop function see_pause cascade');
      await admin.query('drop table pause_seen');
      await admin.end();
    }
  });
});

test('a paused route keeps what arrives and goes on with it when resumed', async () => {
  const route = await workspace.publish();
  await workspace.call('POST', `/routes/${route}/pause`);
  const id = await workspace.submit(maren);
  expect((await routed(id)).runs[0]).toMatchObject({ outcome: 'held', summary: expect.stringContaining('paused') });
  expect(await records('contacts')).toEqual([]);
  await workspace.call('POST', `/routes/${route}/resume`);
  await until(
    () => workspace.get<SubmissionDetail>(`/submissions/${id}`),
    ({ runs }) => runs[0]?.outcome === 'written',
  );
  expect(await workspace.query('select id from run')).toHaveLength(1);
});

test('two routes of one intake each run once', async () => {
  await workspace.publish();
  await workspace.publish({ ...routeFrom(workspace.endpoint), name: 'Second' });
  const { runs } = await routed(await workspace.submit(maren), 2);
  expect(runs.map(({ route, outcome }) => [route.name, outcome])).toEqual([
    ['Enquiries', 'written'],
    ['Second', 'written'],
  ]);
  expect(await records('deals')).toHaveLength(1);
});

describe('a rehearsal', () => {
  test('is the plan that runs live, and writes nothing', async () => {
    const route = await workspace.publish();
    const { body: made } = await workspace.call<Rehearsal>('POST', `/routes/${route}/rehearse`, { payload: maren });
    expect(made).toMatchObject({ outcome: 'write', writes: [{ did: 'create' }, { did: 'create' }, { did: 'create' }] });
    expect(await workspace.query('select 1 from contact union all select 1 from submission')).toEqual([]);
    const id = await workspace.submit(maren);
    const { runs } = await routed(id);
    const { body: again } = await workspace.call<Rehearsal>('POST', `/routes/${route}/rehearse`, { submissionId: id });
    expect(again.writes.map(({ did }) => did)).toEqual(['keep', 'keep', 'keep']);
    const run = await workspace.get<RunShape>(`/runs/${runs[0]!.id}`);
    expect(run.plan!.writes.map(({ as, did }) => [as, did])).toEqual(made.writes.map(({ as, did }) => [as, did]));
  });

  test('follows a draft that is not saved, and refuses what is not built by name', async () => {
    const definition = routeFrom(workspace.endpoint);
    definition.writes[1]!.fills[0]!.value.finishers = [];
    const { body } = await workspace.call<Rehearsal>('POST', '/rehearse', { definition, payload: maren });
    expect(body.writes[1]!.fields[0]!.after).toBe('MAREN ODUYA');
    const refused = await workspace.call<ProblemBody>('POST', '/rehearse', {
      definition: { ...definition, sendOn: [{ to: 'elsewhere' }] },
      payload: maren,
    });
    expect([refused.status, refused.body.errors]).toEqual([
      422,
      [expect.objectContaining({ at: '/sendOn/0', code: 'not-built-yet' })],
    ]);
  });
});

describe('a draft', () => {
  test('is kept though it is not ready, and does not run before it is published', async () => {
    const route = await workspace.publish();
    const draft = routeFrom(workspace.endpoint);
    draft.writes = [draft.writes[1]!];
    draft.writes[0]!.links = ['gone'];
    const { body } = await workspace.call<RouteShape>('PUT', `/routes/${route}/draft`, draft);
    expect(body.problems.map(({ code }) => code)).toEqual(['unknown-write']);
    expect((await workspace.call('POST', `/routes/${route}/publish`, {})).status).toBe(422);
    await routed(await workspace.submit(maren));
    expect(await records('deals')).toHaveLength(1);
  });

  test('of the wrong shape is refused at its place', async () => {
    const route = await workspace.publish();
    const { status, body } = await workspace.call<ProblemBody>('PUT', `/routes/${route}/draft`, {
      ...routeFrom('x'),
      colour: 1,
    });
    expect([status, body.errors?.[0]]).toEqual([
      422,
      expect.objectContaining({ at: '/colour', code: 'unknown-property' }),
    ]);
  });
});

test('a deal is moved by a person, with history', async () => {
  await workspace.publish();
  await routed(await workspace.submit(maren));
  const [deal] = await records('deals');
  const person = await workspace.signIn();
  const move = (stage: string) => person<RecordShape>('POST', `/deals/${deal!.id}/move`, { stage });
  expect((await move('gone')).status).toBe(422);
  expect((await move('design')).body.values.stage).toBe('design');
  const [latest] = await workspace.get<HistoryEntry[]>(`/deals/${deal!.id}/history`);
  expect(latest!.cause).toMatchObject({ kind: 'person', label: 'Robin Nye' });
  const grid = await workspace.get<PipelineGrid>('/pipelines/new-builds/grid');
  expect(grid.rows.map(({ stage, count, goOn }) => [stage, count, goOn])).toEqual([
    ['enquiry', 0, 1],
    ['design', 1, null],
  ]);
  await move('won');
  expect((await workspace.get<RecordShape>(`/deals/${deal!.id}`)).values).toMatchObject({
    status: 'won',
    closed_at: expect.any(String),
  });
});
