import { describe, expect, test } from '@jest/globals';
import { blocksOf, comparedForm, startingModel, type FieldValues, type FoundPair, type Sought } from '@haycart/core';
import { generatePeople } from '@haycart/core/testing/people';
import type { WorkspaceTx } from '../src/platform/database/database';
import { databaseFailure } from '../src/platform/database/failure';
import { Thread } from '../src/platform/threads/thread';
import { CandidateSearch } from '../src/records/recognised/candidate-search.service';
import { likelyCandidates } from '../src/records/recognised/candidates';
import { eachInWorkspace, type TestServer, type TestWorkspace } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;
eachInWorkspace((made) => ({ server, workspace } = made));

const { records } = generatePeople(31, 240);
const here = records.filter((_, index) => index % 2);
const newcomers = records.filter((_, index) => index % 2 === 0);

const sought = ({ values }: { values: FieldValues }): Sought => {
  const compared = comparedForm('contact', values);
  return { record: 'contact', blocks: blocksOf(compared), compared, byName: true, ask: 0.35, open: 'company' };
};

const FIELDS = ['first_name', 'last_name', 'email', 'phone', 'country'];

/** Everybody who is here, as a contact of their own. */
async function writePeople(): Promise<void> {
  const fills = FIELDS.map((field) => ({ field, value: { parts: [{ answer: field }] } }));
  await workspace.publish({
    format: 'haycart.route/1',
    name: 'Everybody',
    from: [workspace.endpoint],
    writes: [{ as: 'person', record: 'contact', fills }],
  });
  await server.post(`/in/${workspace.endpoint}`, JSON.stringify(here.map(({ values }) => values)), {
    'content-type': 'application/json',
  });
  await workspace.handled();
}

const within = <Result>(work: (tx: WorkspaceTx) => Promise<Result>) => server.database.inWorkspace(workspace.id, work);
const find = () => within((tx) => server.app.get(CandidateSearch).likely(tx, newcomers.map(sought), undefined));

describe('those that may be meant', () => {
  test('are found on the thread as they are on the server’s own', async () => {
    await writePeople();
    const found = await find();
    expect(found.get('contact')!.size).toBeGreaterThan(20);
    expect(found).toEqual(await within((tx) => likelyCandidates(tx, newcomers.map(sought), undefined)));
  });

  test('are found by another thread where one has ended', async () => {
    await writePeople();
    const before = await find();
    await server.app.get(CandidateSearch).onApplicationShutdown();
    expect(await find()).toEqual(before);
  });
});

test('pairs around many records are found on the thread as around each by itself', async () => {
  await writePeople();
  const ids = (await workspace.query<{ id: string }>('select id from contact order by id')).map(({ id }) => id);
  const around = (some: readonly string[]) =>
    within((tx) =>
      server.app
        .get(CandidateSearch)
        .pairsAround(tx, { kind: 'contact', ids: some, model: startingModel('contact'), ask: 0.2 }),
    );
  const inOrder = (pairs: FoundPair[]) => pairs.map(({ one, other }) => `${one} ${other}`).sort();
  const together = inOrder(await around(ids));
  expect(together.length).toBeGreaterThan(3);
  const apart = new Set<string>();
  for (const id of ids) for (const pair of inOrder(await around([id]))) apart.add(pair);
  expect(together).toEqual([...apart].sort());
});

describe('a thread', () => {
  const data = { databaseUrl: 'postgresql://nobody@127.0.0.1:1/none', connections: 1 };
  const question = { workspaceId: '01900000-0000-7000-8000-000000000000', sought: newcomers.slice(0, 1).map(sought) };

  test('tells what it threw with its code, and answers on', async () => {
    const thread = new Thread('candidates', data);
    for (let turn = 0; turn < 2; turn++) {
      const failure = await thread.ask(question).catch((cause: unknown) => cause);
      expect(failure).toBeInstanceOf(Error);
      expect(databaseFailure(failure)).toBe('unreachable');
    }
    expect(thread.ended).toBe(false);
    await thread.stop();
  });

  test('that ends leaves no question without an answer, before or after', async () => {
    const thread = new Thread('candidates', data);
    const asked = thread.ask(question).catch((cause: Error) => cause.message);
    await thread.stop();
    expect(await asked).toBe('The thread “candidates” ended early.');
    expect(thread.ended).toBe(true);
    await expect(thread.ask(question)).rejects.toThrow('ended early');
  });

  test('whose bundle is not there says so', () => {
    expect(() => new Thread('nobody')).toThrow('Build the server.');
  });
});
