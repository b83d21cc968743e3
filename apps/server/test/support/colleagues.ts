import { expect } from '@jest/globals';
import type { TestWorkspace } from './test-server';

/** Ida Weir and Bo Lund beside Robin Nye, and the team North of those of them who are named by key. */
export async function addNorth(
  workspace: TestWorkspace,
  people: readonly string[] = ['ida-weir', 'bo-lund', 'robin-nye'],
): Promise<Awaited<ReturnType<TestWorkspace['signIn']>>> {
  const person = await workspace.signIn();
  for (const name of ['Ida Weir', 'Bo Lund'])
    await person('POST', '/people', { name, email: `${name[0]}.${workspace.key}@quillfern.example` });
  expect((await person('POST', '/teams', { name: 'North', people })).status).toBe(201);
  return person;
}
